import { expect, test } from 'vitest';
import { localHost } from '../kernels/host';
import { DISHED, dishes, drawerBit } from '../plan/plan-test-kit';
import { studyBeside, waysToLie } from './study';

/** Plunges of an end mill 20 mm wide: round pockets with upright walls, exact. */
const R = 10;
const plunge = (file: string, x: number, y: number, deep: number) => ({
  file,
  tool: 9,
  text: `G21 G17 G90 G94 G54\nM3 S10000\nG4 P3\nG0 Z5\nG0 X${x} Y${y}\nG1 Z-${deep} F200\nG0 Z5\nM5\nM30\n`,
});

/** A board with one round pocket in each side; that of the back lies where the face sees it at `x`. */
function pocketed(deep: [number, number], x: number, y: number) {
  const { face, back } = dishes();
  face.cutters.push({ ...drawerBit('em6'), id: 'wide', number: 9, diameter: 2 * R, shankDiameter: 10 });
  return {
    board: face.board,
    setups: [
      { view: face, programs: [plunge('a.nc', x, y, deep[0])] },
      { view: back, programs: [plunge('b.nc', DISHED.x - x, y, deep[1])] },
    ],
  };
}

/** Area that two circles of radius R share whose middles lie d apart (any table of plane geometry). */
const lens = (d: number) => 2 * R * R * Math.acos(d / (2 * R)) - (d / 2) * Math.sqrt(4 * R * R - d * d);
/** Area of one of two such circles that the other does not cover. */
const crescent = (d: number) => Math.PI * R * R - lens(d);

test('two round pockets over each other: the web is what both leave, and the second takes elsewhere what it leaves here', async () => {
  const { board, setups } = pocketed([4, 3], 30, 25);
  // Five mm are more than are to be left: none of it is thin, wherever the board lies.
  const cases = await studyBeside(board, setups, { shift: 0.5, turn: 0.5 }, localHost);
  expect(cases.map((c) => c.beside)).toEqual(waysToLie(0.5, 0.5));
  for (const c of cases) {
    expect(c.web).toBeCloseTo(12 - 4 - 3, 3);
    expect(c.open).toBe(0);
    // Turned about the board's middle the pocket in its middle stays where it is.
    const d = Math.hypot(c.beside.x, c.beside.y);
    expect(c.thin).toBe(0);
    // What the second side takes elsewhere is as much as it leaves.
    expect(Math.abs(c.gone - 3 * crescent(d))).toBeLessThan(0.02 * 3 * lens(0));
    expect(Math.abs(c.left - 3 * crescent(d))).toBeLessThan(0.02 * 3 * lens(0));
  }
});

test('a pocket aside from the middle moves as far as the turn carries it; its openings follow', async () => {
  const { board, setups } = pocketed([7, 6], 45, 25);
  // Open on purpose with the board in its place: only what is open beside that, and further than the move reaches, is told.
  const cases = await studyBeside(board, setups, { shift: 0.3, turn: 1 }, localHost);
  expect(cases[0]).toMatchObject({ corner: 0, gone: 0, left: 0, open: 0 });
  for (const c of cases.slice(1)) {
    const a = (c.beside.turn * Math.PI) / 180;
    // Half a turn about y through x = 30 keeps y; in the back's coordinates the pocket lies 15 mm left of the middle.
    const carried = 2 * 15 * Math.sin(Math.abs(a) / 2);
    expect(c.corner).toBeCloseTo(
      Math.hypot(60, 50) * Math.sin(Math.abs(a) / 2) + Math.hypot(c.beside.x, c.beside.y),
      9,
    );
    if (c.beside.x === 0 && c.beside.y === 0)
      // Six of the twelve are gone below, seven above: each sees what stands of the crescent.
      expect(Math.abs(c.gone - 6 * crescent(carried))).toBeLessThan(0.02 * 6 * lens(0));
    expect(c.open).toBe(0);
  }
});

test('what gets thin because the board lies aside is told, by the lens that two pockets come to share', async () => {
  // Pockets side by side that share nothing in their place, and a lens once the board is moved.
  const { face, back } = dishes();
  face.cutters.push({ ...drawerBit('em6'), id: 'wide', number: 9, diameter: 2 * R, shankDiameter: 10 });
  const setups = [
    { view: face, programs: [plunge('a.nc', 20, 25, 7)] },
    { view: back, programs: [plunge('b.nc', DISHED.x - 40, 25, 4)] },
  ];
  const cases = await studyBeside(face.board, setups, { shift: 3, turn: 0 }, localHost);
  expect(cases[0]).toMatchObject({ thin: 0, open: 0 });
  const shared = cases.map((c) => c.thin);
  // Moved in the back's own coordinates: one way the pockets part, the other way they come to share a lens 3 mm wide with 1 mm left under it.
  const [nearer] = [...shared].sort((a, b) => b - a);
  expect(Math.abs(nearer - lens(2 * R - 3)) / lens(2 * R - 3)).toBeLessThan(0.05);
  expect(Math.min(...cases.map((c) => c.web))).toBeCloseTo(12 - 7 - 4, 3);
  expect(shared.filter((a) => a === 0).length).toBeGreaterThan(4);
});
