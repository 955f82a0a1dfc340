import { ROTARY_AXIS } from '@/core/doc/defaults';
import { type Machine, ROTARY_LETTERS, type Rotary } from '@/core/doc/machine';
import { Choice, LengthField, NumberField, Tick } from '../controls/fields';

const LIES = { none: 'none', x: 'one along x', y: 'one along y' } as const;

const FEEDS: Record<Rotary['feed'], [name: string, note: string]> = {
  'inverse-time': ['in inverse time, G93', 'one over the minutes that each move takes'],
  'per-minute': ['a minute, G94', 'degrees a minute where only the drum turns'],
};

/** A machine's rotary axis: where it lies, and how it is driven. */
export function RotaryFields({ machine, set }: { machine: Machine; set(edit: (m: Machine) => void): void }) {
  const { rotary } = machine;
  const edit = (change: (r: Rotary) => void) => set((m) => m.rotary && change(m.rotary));
  return (
    <>
      <Choice
        label="Rotary axis"
        value={rotary?.along ?? 'none'}
        options={(['none', 'x', 'y'] as const).map((r) => [r, LIES[r]] as const)}
        onChange={(v) => set((m) => (m.rotary = v === 'none' ? null : { ...(m.rotary ?? ROTARY_AXIS), along: v }))}
      />
      {rotary && (
        <>
          <LengthField
            label="Axis over the bed"
            value={rotary.height}
            min={0}
            open
            max={2000}
            onChange={(v) => edit((r) => (r.height = v))}
          />
          <Choice
            label="Turned by the word"
            value={rotary.letter}
            options={ROTARY_LETTERS.map((l) => [l, l] as const)}
            onChange={(v) => edit((r) => (r.letter = v))}
          />
          <NumberField
            label="Turns, degrees a minute"
            value={rotary.maxSpeed}
            min={1}
            max={1e6}
            onChange={(v) => edit((r) => (r.maxSpeed = v))}
            note={`${Math.round(rotary.maxSpeed / 36) / 10} turns a minute at most`}
          />
          <NumberField
            label="Acceleration, degrees/s²"
            value={rotary.acceleration}
            min={1}
            max={1e6}
            onChange={(v) => edit((r) => (r.acceleration = v))}
          />
          <Choice
            label="Feeds of turns are written"
            value={rotary.feed}
            options={(['inverse-time', 'per-minute'] as const).map((f) => [f, FEEDS[f][0]] as const)}
            onChange={(v) => edit((r) => (r.feed = v))}
            note={FEEDS[rotary.feed][1]}
          />
          {rotary.feed === 'per-minute' && (
            <Tick
              label="A degree counts as a unit of length"
              value={rotary.degreesCount}
              onChange={(v) => edit((r) => (r.degreesCount = v))}
            />
          )}
          <Tick label="Turns on and on" value={rotary.endless} onChange={(v) => edit((r) => (r.endless = v))} />
        </>
      )}
    </>
  );
}
