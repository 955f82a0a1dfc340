import { cutoutSchema } from '../passes/cutout/schema';
import { finishSchema } from '../passes/finish/schema';
import { flatSchema } from '../passes/flat/schema';
import { hangSchema } from '../passes/hang/schema';
import { holeSchema } from '../passes/hole/schema';
import { letterSchema } from '../passes/letter/schema';
import { partSchema } from '../passes/part/schema';
import { pocketSchema } from '../passes/pocket/schema';
import { roughSchema } from '../passes/rough/schema';
import { skimSchema } from '../passes/skim/schema';
import { turnSchema } from '../passes/turn/schema';
import { z } from '../units/zod';
import type { OutlineRef } from './outline-ref';
import type { Area } from './pass-parts';

/** What each kind of pass holds: a new kind has a line here and one in passes/registry.ts. */
export const PASS_SCHEMAS = [
  roughSchema,
  flatSchema,
  letterSchema,
  finishSchema,
  skimSchema,
  pocketSchema,
  hangSchema,
  holeSchema,
  cutoutSchema,
  turnSchema,
  partSchema,
] as const;

export const passSchema = z.discriminatedUnion('kind', PASS_SCHEMAS);
export type Pass = z.infer<typeof passSchema>;
export type PassKindName = Pass['kind'];
export type PassOf<K extends PassKindName> = Extract<Pass, { kind: K }>;
/** Passes that work over an area. */
export type AreaPass = Extract<Pass, { area: Area }>;

/** Whether a pass is kept in reserve. */
export const isReserve = (p: Pass): boolean => 'reserve' in p && p.reserve;

/** The outline that a pass names, of its area or its own; null when it names none. */
export function outlineOfPass(p: Pass): OutlineRef | null {
  if ('outline' in p) return p.outline;
  return 'area' in p && p.area.kind === 'outline' ? p.area.outline : null;
}

/** The layers that a pass names by their ids. */
export function layersNamed(p: Pass): string[] {
  const ref = outlineOfPass(p);
  return ref ? [...(ref.of ?? []), ...ref.less] : [];
}
