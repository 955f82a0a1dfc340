import { expect, test } from 'vitest';
import { MASK } from '../arrange/target';
import { boardGrid, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { DRAWER, HOBBY_MACHINE } from '../plan/defaults';
import { plainJob } from '../plan/propose';
import type { CutoutProof, TabFound } from './connect';
import { prove } from './prove';
import { heldFindings, unevenFindings } from './skim-and-cutout';

const mill = DRAWER.find((c) => c.id === 'em6')!;
const { board } = plainJob({
  name: 'a',
  order: '',
  machine: HOBBY_MACHINE,
  rough: mill,
  finish: mill,
  board: { x: 40, y: 30, thickness: 12 },
});

test('what a skim leaves standing is an error at its highest place; an even board is none', () => {
  const cut = makeField(boardGrid(40, 30, 0.5), -1);
  expect(unevenFindings(cut)).toEqual([]);
  cut.data[10 * cut.width + 20] = 0.3;
  cut.data[5] = 0.1;
  const [f, ...rest] = unevenFindings(cut);
  expect(rest).toEqual([]);
  expect(f).toMatchObject({ rule: 'left-over', severity: 'error' });
  expect(f.message).toContain('0.3 mm too thick');
  expect(f.x).toBeCloseTo(cut.originX + 10, 6);
  expect(f.y).toBeCloseTo(cut.originY + 5, 6);
});

test.each([false, true])(
  'a program that skims half of the board is found out, on the back or not (%s)',
  async (back) => {
    const field = makeField(boardGrid(40, 30, 0.5), 0);
    const n = field.data.length;
    const rows = Array.from({ length: 8 }, (_, i) => `G1 Y${2 * i}\nX${i % 2 === 0 ? 44 : -4}`).join('\n');
    const proof = await prove(
      {
        programs: [
          {
            file: 'skim.nc',
            text: `G21 G90\nG0 Z5\nS16000 M3\nG0 X-4 Y0\nG1 Z0 F800\n${rows}\nG0 Z5\nM5\nM30\n`,
            tool: 1,
            rough: true,
            back,
          },
        ],
        cutters: [mill],
        zero: { x: 0, y: 0, z: 0 },
        target: { field, mask: new Uint8Array(n).fill(MASK.keep), outside: new Float32Array(n), ground: 0 },
        board,
        machine: HOBBY_MACHINE,
        tops: () => new Float32Array(n).fill(0.4),
        through: null,
        cutouts: [],
      },
      localHost,
    );
    const found = proof.findings.filter((f) => f.rule === 'left-over');
    expect(found.map((f) => f.severity)).toEqual(['error']);
    expect(found[0].y).toBeGreaterThan(17);
    // It took off what stood under its rows: up to a radius beyond the last of them.
    expect(proof.volumes[0] / (40 * (14 + 3.175) * 0.4)).toBeCloseTo(1, 1);
  },
);

test('what holds a piece: joined beside its tabs, by none, by one that is frail or has nothing to hold on to', () => {
  const tab = (change: Partial<TabFound> = {}): TabFound => ({
    x: 3,
    y: 4,
    length: 20,
    thickness: 6,
    section: 120,
    holds: true,
    ...change,
  });
  const said = (c: Partial<CutoutProof>) =>
    heldFindings({ joined: null, tabs: [tab()], ...c }, board).map((f) => [f.rule, f.severity, f.x, f.y]);
  expect(said({})).toEqual([]);
  expect(said({ joined: { x: 1, y: 2 } })).toEqual([['joined', 'error', 1, 2]]);
  expect(said({ tabs: [] })).toEqual([['loose', 'warning', 20, 15]]);
  expect(said({ tabs: [tab(), tab({ holds: false, x: 9 })] })).toEqual([['loose', 'warning', 9, 4]]);
  expect(said({ tabs: [tab({ thickness: 0.5 })] })).toEqual([['loose', 'warning', 3, 4]]);
  expect(said({ tabs: [tab({ length: 0.2 })] })).toEqual([['loose', 'warning', 3, 4]]);
});
