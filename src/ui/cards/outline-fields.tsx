'use client';
import type { Layer } from '@/core/doc/layer';
import { type OutlineRef, WHOLE_PIECE } from '@/core/doc/outline-ref';
import { type SetupView, seenLayers } from '@/core/setup/view';
import { Choice, Folded, LengthField, Tick } from '../controls/fields';

const WHOLE = 'whole';

/** An outline that can be chosen. */
interface Choosable {
  id: string;
  name: string;
  of: string[] | null;
}

/** What a layer is called among those of other setups, and of what is not seen. */
function called({ board, setup }: SetupView, l: Layer): string {
  const other = board.setups.find((s) => s !== setup && s.layers.some((o) => o.id === l.id));
  return `${l.name}${other ? ` of ${other.name}` : l.hidden ? ', hidden' : ''}`;
}

/** What outlines can be taken of: the whole piece, groups, layers, and as it is what else a pass names. */
function choices(job: SetupView, named: string[] | null): Choosable[] {
  const all = seenLayers(job);
  const shown = job.layers.filter((l) => !l.hidden);
  const groups = [...new Set(shown.flatMap((l) => l.group ?? []))];
  const out: Choosable[] = [
    { id: WHOLE, name: 'the whole piece', of: null },
    ...groups.map((g) => {
      const of = shown.filter((l) => l.group === g);
      return { id: `group ${g}`, name: `group of ${of[0].name}`, of: of.map((l) => l.id) };
    }),
    ...all.map((l) => ({ id: l.id, name: called(job, l), of: [l.id] })),
  ];
  if (!named || out.some((c) => same(c.of, named))) return out;
  const names = named.map((id) => all.find((l) => l.id === id)?.name ?? id);
  return [...out, { id: 'named', name: names.join(' and '), of: named }];
}

const same = (a: string[] | null, b: string[] | null) => JSON.stringify(a) === JSON.stringify(b);

/** Whose outline is meant, and how it is changed. */
export function OutlineFields({
  job,
  outline,
  larger = true,
  set,
}: {
  job: SetupView;
  outline: OutlineRef;
  /** Whether it is asked how much larger it is: not where the pass itself says so. */
  larger?: boolean;
  set(f: (o: OutlineRef) => void): void;
}) {
  const all = choices(job, outline.of);
  const chosen = all.find((c) => same(c.of, outline.of)) ?? all[0];
  const less = all.find((c) => c.of !== null && same(c.of, outline.less));
  return (
    <>
      <Choice
        label="Outline of"
        value={chosen.id}
        options={all.map((c) => [c.id, c.name] as const)}
        onChange={(id) => set((o) => (o.of = all.find((c) => c.id === id)?.of ?? null))}
      />
      {larger && (
        <LengthField
          label="Larger by"
          value={outline.grow}
          min={-500}
          max={500}
          onChange={(v) => set((o) => (o.grow = v))}
          note="smaller with a number below 0"
        />
      )}
      <Folded title="More of this outline">
        <Choice
          label="Minus the layer"
          value={less?.id ?? ''}
          options={[['', 'nothing'], ...all.filter((c) => c.of !== null).map((c) => [c.id, c.name] as const)]}
          onChange={(id) => set((o) => (o.less = all.find((c) => c.id === id)?.of ?? WHOLE_PIECE.less))}
        />
        <Choice
          label="Corners"
          value={outline.corner}
          options={[
            ['round', 'round, when larger'],
            ['sharp', 'run out to a point'],
          ]}
          onChange={(v) => set((o) => (o.corner = v))}
        />
        <LengthField
          label="Smoothed by"
          value={outline.smooth}
          min={0}
          max={100}
          onChange={(v) => set((o) => (o.smooth = v))}
          note="bumps and notches narrower than twice this go"
        />
        <Tick label="Openings in it count" value={outline.holes} onChange={(v) => set((o) => (o.holes = v))} />
      </Folded>
    </>
  );
}
