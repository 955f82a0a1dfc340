import { boundsOf } from '@/core/arrange/place';
import { cutterSchema, profileOf } from '@/core/cutter/cutter';
import { applyEdits } from '@/core/doc/edits';
import { type Layer, layerSchema } from '@/core/doc/layer';
import { outlineOfPass, type Pass, passSchema } from '@/core/doc/pass';
import { joinBounds } from '@/core/outline/polygon';
import { addBit } from '@/core/passes/add-pass';
import { placeFor } from '@/core/passes/order';
import { freeId } from '@/core/passes/proposals';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { z } from '@/core/units/zod';
import { freeGroup, newId } from '../arrange/actions';

/** What was copied last: layers, or a pass with its bit. */
const copiedSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('layers'), layers: z.array(layerSchema).min(1).max(300) }),
  z.object({ kind: z.literal('pass'), pass: passSchema, cutter: cutterSchema.nullable() }),
]);
export type Copied = z.infer<typeof copiedSchema>;

/** Where this browser keeps it: for the other jobs and tabs of the same shop, and on plain http, where pages have no clipboard. */
const KEY = 'zg-copied';

export function keepCopied(copied: Copied): void {
  localStorage.setItem(KEY, JSON.stringify(copied));
}

/** What was copied last; null when nothing was, or what is there is nothing that can be put in. */
export function readCopied(): Copied | null {
  try {
    return copiedSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
  } catch {
    return null;
  }
}

export const copyOfLayers = (job: SetupView, ids: readonly string[]): Copied => ({
  kind: 'layers',
  layers: job.layers.filter((l) => ids.includes(l.id)),
});

export const copyOfPass = (job: SetupView, pass: Pass): Copied => ({
  kind: 'pass',
  pass,
  cutter: job.cutters.find((c) => c.id === pass.cutter) ?? null,
});

/** How far copies lie aside of what lies where they would, mm. */
const ASIDE = 5;

/** How far copies are moved: aside while others of the same name lie there, and onto the board where none of them would be on it. */
function wayOf(job: SetupView, layers: Layer[]): { x: number; y: number } {
  const { x0, y0, x1, y1 } = joinBounds(layers.map((l) => boundsOf(l)));
  const { board } = job;
  if (x0 >= board.x || y0 >= board.y || x1 <= 0 || y1 <= 0)
    return { x: board.x / 2 - (x0 + x1) / 2, y: board.y / 2 - (y0 + y1) / 2 };
  const taken = (by: number) =>
    job.layers.some((o) =>
      layers.some((l) => Math.hypot(l.centre.x + by - o.centre.x, l.centre.y - by - o.centre.y) < 0.5),
    );
  let by = 0;
  while (taken(by) && by < 20 * ASIDE) by += ASIDE;
  return { x: by, y: -by };
}

/** Puts copied layers on top of a setup's own, as a group again where they were one. @returns their new ids */
function putLayers(job: SetupView, layers: Layer[]): string[] {
  const ids = new Map(layers.map((l) => [l.id, newId()]));
  const way = wayOf(job, layers);
  const groups = new Map<string, string>();
  for (const l of layers) {
    if (l.group === null || groups.has(l.group)) continue;
    const taken = job.layers.some((o) => o.group === l.group);
    groups.set(l.group, taken ? freeGroup([...job.layers, ...layers]) : l.group);
  }
  const made = layers.map((l): Layer => {
    const mask = l.mask.kind === 'layer' ? ids.get(l.mask.layer) : undefined;
    return {
      ...structuredClone(l),
      id: ids.get(l.id)!,
      shared: null,
      group: l.group === null ? null : (groups.get(l.group) ?? null),
      centre: { x: clean(l.centre.x + way.x), y: clean(l.centre.y + way.y) },
      // A mask that stayed behind covers nothing here.
      mask: l.mask.kind !== 'layer' ? l.mask : mask === undefined ? { kind: 'none' } : { ...l.mask, layer: mask },
    };
  });
  job.layers.push(...made);
  return made.map((l) => l.id);
}

/** Puts a copied pass where its kind belongs, with its bit; layers that it names and that are not here are left out. @returns its new id */
function putPass(job: SetupView, { pass, cutter }: Extract<Copied, { kind: 'pass' }>): string {
  const own = { ...structuredClone(pass), id: freeId(pass.kind, job) };
  const ref = outlineOfPass(own);
  if (ref) {
    const here = (id: string) => job.layers.some((l) => l.id === id);
    ref.less = ref.less.filter(here);
    const of = ref.of?.filter(here) ?? [];
    ref.of = of.length > 0 ? of : null;
  }
  if (cutter) {
    // A bit of the same name that cuts another shape here is another bit.
    const here = job.cutters.find((c) => c.id === cutter.id);
    const same = !here || JSON.stringify(profileOf(here)) === JSON.stringify(profileOf(cutter));
    const bit = same ? cutter : { ...cutter, id: newId() };
    applyEdits(job.document, addBit(job, bit));
    own.cutter = bit.id;
  }
  job.passes.splice(placeFor(job.passes, own.kind), 0, own);
  return own.id;
}

/** Puts in what was copied. @returns the new layers' ids, or the new pass's */
export const putIn = (job: SetupView, copied: Copied): { layers: string[] } | { pass: string } =>
  copied.kind === 'layers' ? { layers: putLayers(job, copied.layers) } : { pass: putPass(job, copied) };
