import { expect, test } from 'vitest';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { placeTab } from './cutout/place-tab';
import { cutoutSchema } from './cutout/schema';
import { nextPlace } from './hole/next-place';

const CUTOUT = {
  kind: 'cutout',
  id: 'c',
  cutter: 'em6',
  outline: WHOLE_PIECE,
  side: 'outside',
  start: 'top',
  depth: null,
  stepdown: 3,
  rampAngle: 4,
  into: 0.5,
  lead: 3,
  last: 0,
  floor: 0,
  tabs: { count: 4, length: 20, thickness: 5, sloped: true, at: null },
};

test('one tab moved by hand: the others stay where they stood', () => {
  const pass = cutoutSchema.parse(CUTOUT);
  const standing = [
    { x: 10, y: 0 },
    { x: 20.123456, y: 30 },
    { x: 0, y: 5 },
  ];
  placeTab(pass, standing, 0, { x: 12.00004, y: 1 });
  expect(pass.tabs.at).toEqual([
    { x: 12, y: 1 },
    { x: 20.1235, y: 30 },
    { x: 0, y: 5 },
  ]);
  expect(pass.tabs.count).toBe(3);
});

test('one more hole comes beside the last, or into the middle where the board ends', () => {
  const board = { x: 100, y: 60 };
  expect(nextPlace([{ x: 10, y: 20 }], 5, board)).toEqual({ x: 25, y: 20 });
  expect(nextPlace([{ x: 90, y: 20 }], 5, board)).toEqual({ x: 50, y: 30 });
  expect(nextPlace([], 5, board)).toEqual({ x: 50, y: 30 });
});
