'use client';
import { X } from 'lucide-react';
import { HOLDINGS, type Holding } from '@/core/doc/setup';
import { boxOutline, holdingBox, newClamp } from '@/core/setup/holding';
import { newId } from '../arrange/actions';
import { Choice, LengthField } from '../controls/fields';
import { type SetupProps, setterOf } from './setup-props';

const HOLDING_NAMES: Record<(typeof HOLDINGS)[number], string> = {
  clamp: 'clamp',
  screw: 'screw',
  tape: 'double-sided tape',
  film: 'film',
  vacuum: 'vacuum zone',
};
function OneHolding({
  holding: h,
  index,
  onChange,
  onRemove,
}: {
  holding: Holding;
  index: number;
  onChange(edit: (h: Holding) => void): void;
  onRemove(): void;
}) {
  const box = holdingBox(h);
  const name = `${HOLDING_NAMES[h.kind].replace(/^./, (c) => c.toUpperCase())} ${index + 1}`;
  const put = (key: keyof typeof box) => (v: number) => onChange((e) => (e.outline = boxOutline({ ...box, [key]: v })));
  return (
    <li className="border-b border-base-300 py-1">
      <div className="flex items-center justify-between text-sm">
        <span className="soft">{name}</span>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Remove ${name}`}
          onClick={onRemove}
        >
          <X size={14} />
        </button>
      </div>
      <Choice
        label="Held by"
        value={h.kind}
        options={HOLDINGS.map((k) => [k, HOLDING_NAMES[k]] as const)}
        onChange={(v) => onChange((e) => (e.kind = v))}
      />
      <LengthField label={`${name}, x`} value={box.x} onChange={put('x')} />
      <LengthField label={`${name}, y`} value={box.y} onChange={put('y')} />
      <LengthField label={`${name}, along x`} value={box.width} min={0} open onChange={put('width')} />
      <LengthField label={`${name}, along y`} value={box.depth} min={0} open onChange={put('depth')} />
      <LengthField
        label={`${name}, height`}
        value={h.height}
        min={0}
        onChange={(v) => onChange((e) => (e.height = v))}
        note="over the board's top"
      />
      <LengthField
        label={`${name}, kept free`}
        value={h.keptFree}
        min={0}
        onChange={(v) => onChange((e) => (e.keptFree = v))}
        note="around it"
      />
    </li>
  );
}

/** Clamps, screws, tape, film and vacuum. */
export function HoldingFields({ job, change }: SetupProps) {
  const set = setterOf(change);
  const { holding } = job.setup;
  const add = () => set((s) => s.holding.push(newClamp(`holding-${newId()}`)));
  return (
    <>
      <ul>
        {holding.map((h, i) => (
          <OneHolding
            key={h.id}
            holding={h}
            index={i}
            onChange={(edit) => set((s) => edit(s.holding.find((e) => e.id === h.id)!))}
            onRemove={() => set((s) => (s.holding = s.holding.filter((e) => e.id !== h.id)))}
          />
        ))}
      </ul>
      <button type="button" className="btn btn-sm mt-1.5 w-full" onClick={add}>
        Add what holds it
      </button>
    </>
  );
}
