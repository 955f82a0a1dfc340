import { expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { feedDoubts } from './feed-doubt';

test('no bit of the drawer is doubted', () => {
  expect(DRAWER.filter((c) => feedDoubts(c).length > 0)).toEqual([]);
});

test.each([
  // Chip load is feed over turns and teeth (any machining handbook): 30 / (16000 x 2) = 0.0009 mm a tooth, 1800 is 0.056, 762 is 0.024.
  ['mm/s typed as mm/min', { feed: 30, rpm: 16000, flutes: 2 }, { 'mm/s': 1800, 'in/min': 762 }],
  // 108000 is 3.4 mm a tooth, 1800 is 0.056, 4252 is 0.13.
  ['mm/min typed as mm/s', { feed: 108000, rpm: 16000, flutes: 2 }, { 'mm/s': 1800, 'in/min': 4252 }],
  // 4 in/min is 102 mm/min: 0.002 mm a tooth is too little as well, 240 mm/min are 0.005.
  ['a unit that explains nothing', { feed: 4, rpm: 24000, flutes: 2 }, { 'mm/s': 240 }],
])('%s is noticed by its chip load', (_, bit, meant) => {
  expect(Object.fromEntries(feedDoubts(bit).map((d) => [d.meant, Math.round(d.feed)]))).toEqual(meant);
});

test('a feed that no unit explains is left to the proof', () => {
  expect(feedDoubts({ feed: 1, rpm: 24000, flutes: 4 })).toEqual([]);
});
