/** What a way of the bit is, as its program says and the proof has seen: where it begins, rapid, going down into the wood, in the air at feed, cutting. */
export const WAYS = ['start', 'rapid', 'entry', 'air', 'cut'] as const;
export type WayKind = (typeof WAYS)[number];

/** The numbers of a place on a bit's way: setup coordinates, mm; feed, mm/min; wood a mm of way, mm3; wood met over the tip, mm; its line. */
export const WAY_ARRAYS = ['x', 'y', 'z', 'feed', 'chip', 'bite', 'line'] as const;
export type WayArray = (typeof WAY_ARRAYS)[number];

/** Where the ways of a pass begin among all places of its setup. */
export interface PassWays {
  pass: string;
  file: string;
  from: number;
}

/** All ways of a setup's programs, one place after the other; `kind` says as an index of WAYS how each was come to. */
export interface Ways {
  passes: PassWays[];
  kind: Uint8Array;
  places: Record<WayArray, Float32Array>;
}
