'use client';
import { useState } from 'react';
import { keepGaps } from '@/core/arrange/place';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { LengthField, NumberField } from '../controls/fields';
import { HandleMark } from './handle-sign';
import type { Shaping } from './layer-card-props';
import { SectionDrawing } from './section-drawing';
import { DRAWING, type Marks, marksOf, marksTogether, type Scale, scaleOf } from './section-scale';
import { ShapeHandle } from './shape-handle';
import { HANDLES, type Handle, putValue, togetherOf } from './shape-handles';

interface Props extends Shaping {
  /** The layers that are shaped together, one or several. */
  some: Layer[];
  name: string;
}

/** Handles of a single layer, and those that several have together. */
const OF_ONE: Handle[] = ['rise', 'lift', 'slope', 'thin'];
const OF_SEVERAL: Handle[] = ['rise', 'lift', 'thin'];

/** Where a handle stands on the drawing. */
function placeOf(handle: Handle, m: Marks, s: Scale, thin: number): { x: number; y: number } {
  switch (handle) {
    case 'rise':
      return { x: s.x(m.topAt), y: s.y(m.top) };
    case 'lift':
      return { x: s.x(m.from) - 9, y: s.y(m.foot) };
    case 'slope':
      return { x: s.x(m.to) + 9, y: s.y(m.leant) };
    case 'thin':
      return { x: Math.min(s.x(m.from + thin), s.x((m.from + m.to) / 2)), y: DRAWING.height - 10 };
  }
}

/** What a movement of pixels to the right and up makes of a handle's value. */
function movedTo(handle: Handle, value: number, m: Marks, s: Scale, by: { right: number; up: number }): number {
  if (handle === 'thin') return value + by.right / s.across;
  const higher = (m.way * by.up) / s.tall;
  if (handle !== 'slope') return value + higher;
  const half = Math.max((m.to - m.from) / 2, 1e-6);
  return (Math.atan(Math.tan((value * Math.PI) / 180) + higher / half) * 180) / Math.PI;
}

/** How high a layer is, how far its foot is raised, how it leans and thins out: as handles on its section, with the numbers beside them. */
export function LayerShape({ some, name, section, axis, onAxis, change, tryOut }: Props) {
  // While a hand holds a handle the drawing keeps its scale.
  const [held, setHeld] = useState<Scale | null>(null);
  const one = some.length === 1 ? some[0] : null;
  const handles = one ? OF_ONE : OF_SEVERAL;
  const ids = some.map((l) => l.id);
  const edit = (handle: Handle, value: number) => (j: SetupView) => {
    const of = j.layers.filter((l) => ids.includes(l.id));
    putValue(of, handle, axis, value);
    keepGaps(j, ids);
  };
  const mine =
    section && section.of.join() === [...ids].sort().join() && (!one || section.axis === axis) ? section : null;
  const thin = togetherOf(some, 'thin', axis);
  const marks =
    mine && (one ? marksOf(mine, { ...one, slope: one.slope[axis] }, one.size[axis] / 2) : marksTogether(mine, some));
  const scale = mine && marks && (held ?? scaleOf(mine, [marks.foot, marks.top, marks.leant]));
  const along = (
    <fieldset className="join" aria-label="Section">
      {(['x', 'y'] as const).map((a) => (
        <button
          key={a}
          type="button"
          className={`btn btn-xs join-item ${axis === a ? 'btn-primary' : ''}`}
          aria-pressed={axis === a}
          onClick={() => onAxis(a)}
        >
          {a === 'x' ? 'along it' : 'across it'}
        </button>
      ))}
    </fieldset>
  );
  return (
    <div className="pt-3">
      <div className="mb-1 flex items-center justify-between gap-2">
        <span className="soft text-[12.5px]">
          {scale ? `heights × ${trimNumber(scale.tall / scale.across, 1)}` : 'section'}
        </span>
        {one && along}
      </div>
      {mine && marks && scale ? (
        <SectionDrawing section={mine} scale={scale} label={`Section through ${name}`}>
          {one && <Lean marks={marks} scale={scale} />}
          {handles.map((h) => {
            const value = togetherOf(some, h, axis);
            return (
              <ShapeHandle
                key={h}
                handle={h}
                name={name}
                {...placeOf(h, marks, scale, thin)}
                value={value}
                moved={(right, up) => movedTo(h, value, marks, scale, { right, up })}
                onHold={(on) => setHeld(on ? scale : null)}
                onTry={(v) => tryOut(v === null ? null : edit(h, v))}
                onPut={(v) => change(edit(h, v))}
              />
            );
          })}
        </SectionDrawing>
      ) : (
        <div className="flex h-[150px] items-center justify-center rounded-lg border border-base-300 bg-(--paper)">
          <span className="soft text-sm">{some.every((l) => l.hidden) ? 'hidden' : 'working out its section'}</span>
        </div>
      )}
      <p className="soft mt-0.5 text-[12.5px] leading-tight">
        dashed: beneath {one ? 'it' : 'them'} · blue: with {one ? 'it' : 'them'} · solid: in the end
      </p>
      <div data-stacked className="group/fields mt-1 grid grid-cols-2 gap-x-3">
        {handles.map((h) => {
          const { label, unit, min, max } = HANDLES[h];
          const field = {
            label,
            mark: <HandleMark handle={h} />,
            value: togetherOf(some, h, axis),
            max,
            onChange: (v: number) => change(edit(h, v)),
          };
          return unit === 'mm' ? (
            <LengthField key={h} {...field} min={h === 'rise' ? 0 : min} open={h === 'rise'} />
          ) : (
            <NumberField key={h} {...field} min={min} suffix="°" />
          );
        })}
      </div>
    </div>
  );
}

/** The foot of a leaning layer, level and as it leans. */
function Lean({ marks: m, scale: s }: { marks: Marks; scale: Scale }) {
  const middle = { x: s.x((m.from + m.to) / 2), y: s.y(m.level) };
  return (
    <path
      d={`M${s.x(m.from)} ${s.y(2 * m.level - m.leant)}L${middle.x} ${middle.y}L${s.x(m.to) + 9} ${s.y(m.leant)}`}
      fill="none"
      stroke="var(--color-primary)"
      strokeOpacity={0.55}
      strokeDasharray="1 3"
    />
  );
}
