'use client';
import { Undo2 } from 'lucide-react';
import { chipLoad } from '@/core/cutter/cutter';
import type { Material } from '@/core/doc/material';
import { type FeedIn, feedIn, type ShopBit, withOwnFeed } from '@/core/doc/own-feeds';
import { saidFeedUnit, saidUnit, sayNumber } from '@/core/units/say';
import { FeedCell, Folded, WholeCell } from '../controls/fields';

/** How a bit runs in one material: the person's own figures, or a place to start from. */
function FeedRow({ bit, material, onChange }: { bit: ShopBit; material: Material; onChange(next: ShopBit): void }) {
  const { own, ...now } = feedIn(bit, material);
  const set = (key: keyof typeof now) => (v: number) =>
    onChange(withOwnFeed(bit, material.id, { ...now, [key]: v } satisfies Omit<FeedIn, 'own'>));
  const chip = chipLoad(now.feed, now.rpm, bit.flutes);
  const { least, most } = material.chipLoad;
  const outside = chip < least ? 'too fine' : chip > most ? 'too coarse' : null;
  return (
    <tr>
      <th scope="row" className="font-semibold">
        {material.name}
      </th>
      <td className="w-24">
        <FeedCell label={`Feed in ${material.name}`} value={now.feed} onChange={set('feed')} />
      </td>
      <td className="w-24">
        <FeedCell label={`Plunge in ${material.name}`} value={now.plunge} onChange={set('plunge')} />
      </td>
      <td className="w-24">
        <WholeCell label={`Spindle speed in ${material.name}`} value={now.rpm} onChange={set('rpm')} />
      </td>
      <td className={outside ? 'text-accent' : ''}>
        {sayNumber(chip, 3)}
        {outside && `, ${outside}: ${sayNumber(least, 3)} to ${sayNumber(most, 3)}`}
      </td>
      <td>
        {own ? (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            title={`Back to the starting figures for ${material.name}`}
            onClick={() => onChange(withOwnFeed(bit, material.id, null))}
          >
            <b>your own</b> <Undo2 size={13} aria-hidden />
          </button>
        ) : (
          <span className="soft">starting figure</span>
        )}
      </td>
    </tr>
  );
}

/** How a bit runs in each of the shop's materials. What is typed here is the person's own, and wins over what is proposed. */
export function FeedsByMaterial({
  bit,
  materials,
  onChange,
}: {
  bit: ShopBit;
  materials: Material[];
  onChange(next: ShopBit): void;
}) {
  const own = materials.filter((m) => bit.feeds?.some((f) => f.material === m.id)).length;
  return (
    <Folded title={`Feeds by material${own > 0 ? `: ${own} of your own` : ''}`}>
      <p className="soft pb-1 text-[13px]">
        Starting figures are the bit's own, moved to where chips are neither too fine nor too coarse for the material.
        What you type in a row is your own figure and is taken for every new board of it.
      </p>
      <div className="overflow-x-auto">
        <table className="table table-xs">
          <thead>
            <tr>
              <th>Material</th>
              <th>Feed, {saidFeedUnit()}</th>
              <th>Plunge, {saidFeedUnit()}</th>
              <th>Spindle, rpm</th>
              <th>Chip load, {saidUnit()} a tooth</th>
              <th>Whose</th>
            </tr>
          </thead>
          <tbody>
            {materials.map((m) => (
              <FeedRow key={m.id} bit={bit} material={m} onChange={onChange} />
            ))}
          </tbody>
        </table>
      </div>
    </Folded>
  );
}
