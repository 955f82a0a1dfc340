import type { Profile } from '../src/core/cutter/cutter';
import { makeField } from '../src/core/field/height-field';
import { engageStock, removeStock } from '../src/core/kernels/stock-removal';
import { row } from './row';

const TAPER = 0.09;
const SHAPES: [string, Profile][] = [
  ['ball 3.175', { shape: 1, R: 1.5875, p0: 0, p1: 0, p2: 0 }],
  ['flat 6.35', { shape: 0, R: 3.175, p0: 0, p1: 0, p2: 0 }],
  ['bull-nose 3 r 0.5', { shape: 2, R: 1.5, p0: 0.5, p1: 0, p2: 0 }],
  ['tapered ball 1', { shape: 3, R: 1.2, p0: 0.5, p1: 0.5 * Math.cos(TAPER), p2: 1 / Math.tan(TAPER) }],
  ['V 60', { shape: 4, R: 1.6, p0: 0.1, p1: 0, p2: 1.732 }],
];

/** Rows of a wavy surface, `length` mm a move, along x or at 28 degrees to it. */
function moves(n: number, length: number, oblique: boolean): Float64Array {
  const out: number[] = [];
  const [c, s] = oblique ? [Math.cos(0.5), Math.sin(0.5)] : [1, 0];
  for (let line = 0; out.length < n * 7; line++) {
    let [x, y, z] = [10, 10 + ((line * 0.35) % 60), -1];
    while (out.length < n * 7) {
      const [nx, ny] = [x + length * c, y + length * s];
      if (nx > 140 || ny > 95) break;
      const nz = -2 + Math.sin(nx * 0.7) * Math.cos(ny * 0.5);
      out.push(x, y, z, nx, ny, nz, 0);
      [x, y, z] = [nx, ny, nz];
    }
  }
  return Float64Array.from(out);
}

const field = () => makeField({ width: 1500, height: 1000, cell: 0.1, originX: 0, originY: 0 });

/** Least CPU seconds of three runs on a fresh board. */
function least(work: (f: ReturnType<typeof field>) => void): number {
  let best = Infinity;
  for (let k = 0; k < 3; k++) {
    const f = field();
    const from = process.cpuUsage();
    work(f);
    const { user, system } = process.cpuUsage(from);
    best = Math.min(best, (user + system) / 1e6);
  }
  return best;
}

/** What telling costs over plain removal, and every shape beside the ball, in one run. */
export function benchEngagement(): void {
  console.log(
    '\nEngagement, 8,000 moves on 150 x 100 mm, cells of 0.1 mm: CPU over plain removal; cells a second, ball = 1',
  );
  for (const length of [0.1, 1, 10]) {
    for (const oblique of [false, true]) {
      let ball = 0;
      for (const [name, p] of SHAPES) {
        const segments = moves(8000, length, oblique);
        const plain = least((f) => removeStock(f, p, segments));
        const told = least((f) => void engageStock(f, p, segments, 3));
        // Cells that the cutter passes over.
        const rate = (8000 * (Math.PI * p.R ** 2 + 2 * p.R * length)) / told;
        if (p.shape === 1) ball = rate;
        row(
          `  ${name}, ${length} mm ${oblique ? 'oblique' : 'along rows'}`,
          `${(told / plain).toFixed(2)}; ${(rate / ball).toFixed(2)}`,
        );
      }
    }
  }
  const [, p] = SHAPES[0];
  const segments = moves(10_000, 1, true);
  const whole = least((f) => removeStock(f, p, segments));
  const parts = least((f) => {
    for (let q = 0; q < segments.length; q += 70) removeStock(f, p, segments.subarray(q, q + 70));
  });
  const one = least((f) => removeStock(f, p, segments.subarray(0, 7)));
  row('  1,000 calls of 10 moves over one of 10,000', (parts / whole).toFixed(2));
  row('  one move of 1 mm on 1.5 M cells', `${(one * 1000).toFixed(2)} ms`);
}
