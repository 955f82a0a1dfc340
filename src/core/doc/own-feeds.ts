import { type Cutter, chipLoad, cutterSchema, feedRate } from '../cutter/cutter';
import { z } from '../units/zod';
import type { Material } from './material';
import { id, positive } from './parts';

/** How a bit is run in one material, as its owner has found it: mm/min and rpm. */
const ownFeedSchema = z.object({ material: id, feed: feedRate, plunge: feedRate, rpm: positive.max(200_000) });
export type OwnFeed = z.infer<typeof ownFeedSchema>;

/** A bit of the drawer: with what its owner has found in materials, one entry a material. Jobs keep copies without it. */
export const shopBitSchema = cutterSchema.safeExtend({
  feeds: z
    .array(ownFeedSchema)
    .max(200)
    .refine((feeds) => new Set(feeds.map((f) => f.material)).size === feeds.length, 'has two entries for one material')
    .optional(),
});
export type ShopBit = z.infer<typeof shopBitSchema>;

/** Speeds of a bit in a material, and whether its owner has found them or they are a place to start from. */
export interface FeedIn extends Pick<Cutter, 'feed' | 'plunge' | 'rpm'> {
  own: boolean;
}

/**
 * How a bit runs in a material: as its owner has found; else by its own figures, the feed moved to where its chip load lies within the material's
 * band, in whole mm/min. A bit is never plunged faster than it is fed.
 */
export function feedIn(bit: ShopBit, { id, chipLoad: band }: Pick<Material, 'id' | 'chipLoad'>): FeedIn {
  const found = bit.feeds?.find((f) => f.material === id);
  if (found) return { feed: found.feed, plunge: found.plunge, rpm: found.rpm, own: true };
  const { rpm, flutes } = bit;
  const chip = chipLoad(bit.feed, rpm, flutes);
  const least = Math.ceil(band.least * rpm * flutes);
  const most = Math.max(1, Math.floor(band.most * rpm * flutes));
  const feed = chip < band.least ? least : chip > band.most ? most : bit.feed;
  return { feed, plunge: Math.min(bit.plunge, feed), rpm, own: false };
}

/** A bit of the drawer as a job on a material takes it. */
export function bitIn(bit: ShopBit, material: Pick<Material, 'id' | 'chipLoad'>): Cutter {
  const { feeds, ...cutter } = bit;
  const { feed, plunge, rpm } = feedIn(bit, material);
  return { ...cutter, feed, plunge, rpm };
}

/** What a drawer has at hand for a board of a material. */
export const bitsIn = (drawer: ShopBit[], material: Pick<Material, 'id' | 'chipLoad'>): Cutter[] =>
  drawer.map((b) => bitIn(b, material));

/** A bit with how it runs in a material as its owner has found; null takes that away again. */
export function withOwnFeed(bit: ShopBit, material: string, found: Omit<OwnFeed, 'material'> | null): ShopBit {
  const feeds = (bit.feeds ?? []).filter((f) => f.material !== material);
  if (found) feeds.push({ material, feed: found.feed, plunge: found.plunge, rpm: found.rpm });
  return { ...bit, feeds };
}

/**
 * A job's bit as the drawer keeps it: its edges and lengths as they are in the job, how it ran there as found in that material. What the drawer knows
 * of its other materials, its number and its wear stay.
 */
export function keptFrom(had: ShopBit | undefined, cutter: Cutter, material: Pick<Material, 'id'>): ShopBit {
  if (!had) return withOwnFeed(cutter, material.id, cutter);
  const { feed, plunge, rpm, number, runs, feeds } = had;
  return withOwnFeed({ ...cutter, feed, plunge, rpm, number, runs, feeds }, material.id, cutter);
}
