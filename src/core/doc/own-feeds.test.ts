import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DRAWER, MATERIALS, materialNamed } from './defaults';
import { bitIn, feedIn, keptFrom, shopBitSchema, withOwnFeed } from './own-feeds';

const [bit] = DRAWER;
const [oak, acrylic] = [materialNamed('oak'), materialNamed('acrylic')];

test('where nothing was found the chip load lies within the band of the material, by feed over turns and teeth (any machining handbook)', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...DRAWER),
      fc.constantFrom(...MATERIALS),
      fc.integer({ min: 10, max: 20_000 }),
      fc.integer({ min: 3000, max: 30_000 }),
      (cutter, material, feed, rpm) => {
        const own = { ...cutter, feed, rpm };
        const chip = (f: number) => f / (rpm * cutter.flutes);
        const found = feedIn(own, material);
        expect(found.own).toBe(false);
        expect(found.rpm).toBe(rpm);
        expect(found.plunge).toBeLessThanOrEqual(found.feed);
        const { least, most } = material.chipLoad;
        if (chip(feed) >= least && chip(feed) <= most) expect(found.feed).toBe(feed);
        else {
          expect(chip(found.feed)).toBeGreaterThanOrEqual(least);
          expect(chip(found.feed)).toBeLessThanOrEqual(most);
          // No further than it has to be moved: a mm/min back, and it is outside again.
          const back = chip(found.feed) > chip(feed) ? found.feed - 1 : found.feed + 1;
          expect(chip(back) < least || chip(back) > most).toBe(true);
        }
      },
    ),
  );
});

test('what a person has found wins, in that material alone, until it is taken away', () => {
  const own = { feed: 900, plunge: 300, rpm: 12_000 };
  const found = withOwnFeed(bit, oak.id, own);
  expect(feedIn(found, oak)).toEqual({ ...own, own: true });
  expect(feedIn(found, acrylic)).toEqual(feedIn(bit, acrylic));
  expect(bitIn(found, oak)).toEqual({ ...bit, ...own });
  expect(withOwnFeed(withOwnFeed(found, oak.id, { ...own, feed: 950 }), oak.id, null).feeds).toEqual([]);
});

test("a job's bit that is kept brings its shape for all, its speeds for that material", () => {
  const had = { ...withOwnFeed(bit, acrylic.id, { feed: 2000, plunge: 200, rpm: 18_000 }), runs: 12 };
  const inJob = { ...bit, number: 44, stickOut: 30, feed: 1200, plunge: 350, rpm: 14_000, runs: 0 };
  const kept = keptFrom(had, inJob, oak);
  expect(kept).toMatchObject({ number: bit.number, runs: 12, stickOut: 30, feed: bit.feed, rpm: bit.rpm });
  expect(feedIn(kept, oak)).toEqual({ feed: 1200, plunge: 350, rpm: 14_000, own: true });
  expect(feedIn(kept, acrylic).feed).toBe(2000);
  // A bit that the drawer did not have begins with what it did here.
  expect(keptFrom(undefined, inJob, oak)).toMatchObject({ feed: 1200, feeds: [{ material: 'oak', feed: 1200 }] });
});

test('two entries for one material, and feeds that are none, are refused', () => {
  const entry = { material: 'oak', feed: 900, plunge: 300, rpm: 12_000 };
  expect(shopBitSchema.safeParse({ ...bit, feeds: [entry] }).success).toBe(true);
  expect(shopBitSchema.safeParse({ ...bit, feeds: [entry, entry] }).success).toBe(false);
  expect(shopBitSchema.safeParse({ ...bit, feeds: [{ ...entry, feed: 0 }] }).success).toBe(false);
  // What is refused of any bit is refused of one in the drawer.
  expect(shopBitSchema.safeParse({ ...bit, shape: 'v', includedAngle: 0 }).success).toBe(false);
});
