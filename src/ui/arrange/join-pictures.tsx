import { useId } from 'react';
import { joined } from '@/core/arrange/compose';
import type { Join, Layer } from '@/core/doc/layer';
import { AIR } from '@/core/field/height-field';
import { TermMark } from '../terms/term-mark';
import type { SelectedSection } from './looks';
import { JOIN_NAMES } from './words-for';

const [W, H] = [48, 30];
/** Every so many samples of the section are drawn. */
const STEP = 4;

interface Picture {
  beneath: number[];
  own: (number | null)[];
  result: number[];
}

/** What each join would make of this layer and what lies under it, along its section. */
function pictures(section: SelectedSection, l: Layer): Record<Join, Picture> {
  const places = Array.from({ length: Math.floor(section.own.length / STEP) }, (_, i) => i * STEP);
  const one = (join: Join): Picture => {
    const beneath = places.map((k) => section.beneath[k]);
    const own = places.map((k) => (section.own[k] === AIR ? null : l.lift + section.own[k]));
    const share = join === 'blend' ? l.amount : 1;
    const result = beneath.map((z, i) => {
      const v = own[i];
      return v === null ? z : joined(join, z, v, share * section.weight[places[i]]);
    });
    return { beneath, own, result };
  };
  return Object.fromEntries(JOIN_NAMES.map(([join]) => [join, one(join)])) as Record<Join, Picture>;
}

function path(values: (number | null)[], y: (v: number) => number): string {
  let d = '';
  let pen = false;
  values.forEach((v, i) => {
    if (v !== null) d += `${pen ? 'L' : 'M'}${((W * i) / (values.length - 1)).toFixed(1)} ${y(v).toFixed(1)}`;
    pen = v !== null;
  });
  return d;
}

/** The ways to join as small pictures: what lies beneath, this layer by itself, and what would come of the two. */
export function JoinPictures({
  layer,
  section,
  onChange,
}: {
  layer: Layer;
  section: SelectedSection | null;
  onChange(join: Join): void;
}) {
  const name = useId();
  const all = section?.of.join() === layer.id ? pictures(section, layer) : null;
  const heights = all ? Object.values(all).flatMap((p) => [...p.beneath, ...p.result]) : [0, 1];
  const [low, high] = [Math.min(0, ...heights), Math.max(0.5, ...heights)];
  const y = (v: number) => 3 + ((high - v) / (high - low)) * (H - 8);
  return (
    <fieldset className="mt-2 grid grid-cols-5 gap-1">
      <legend className="soft mb-1 text-sm">
        Joins <TermMark label="Joins" />
      </legend>
      {JOIN_NAMES.map(([join, text]) => (
        <label
          key={join}
          className={`flex cursor-pointer flex-col items-center rounded-lg border pt-1 pb-1 text-center text-[12px] leading-tight has-[:focus-visible]:outline-2 ${layer.join === join ? 'border-primary bg-[color-mix(in_oklab,var(--color-primary)_13%,transparent)] font-semibold' : 'border-base-300'}`}
        >
          <input
            type="radio"
            className="sr-only"
            name={name}
            value={join}
            checked={layer.join === join}
            onChange={() => onChange(join)}
          />
          <svg viewBox={`0 0 ${W} ${H}`} className="w-full" aria-hidden>
            {all && (
              <>
                <path d={`${path(all[join].result, y)}L${W} ${H}L0 ${H}Z`} fill="var(--wood)" />
                <path d={path(all[join].beneath, y)} fill="none" stroke="var(--soft)" strokeDasharray="2 2" />
                <path d={path(all[join].own, y)} fill="none" stroke="var(--color-primary)" strokeOpacity={0.7} />
                <path d={path(all[join].result, y)} fill="none" stroke="var(--color-base-content)" strokeWidth={1.4} />
              </>
            )}
          </svg>
          {text}
        </label>
      ))}
    </fieldset>
  );
}
