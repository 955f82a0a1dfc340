import { type Cutter, profileOf } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import { sweptOver } from '../kernels/dense-test-kit';
import { zeroOf } from '../setup/frame';
import type { SetupView } from '../setup/view';

/** A motion of a program as a plain reading of its words tells it, setup coordinates, mm. */
interface PlainMove {
  line: number;
  at: number[];
  rapid: boolean;
  feed: number;
  /** Turns a minute, clockwise; negative the wrong way, 0 stopped. */
  spin: number;
  tool: number;
}

/** What a plain reading finds that would break a bit, a board or a machine: in which line, and what. */
export interface Harm {
  file: string;
  line: number;
  what: string;
}

export interface PlainProgram {
  file: string;
  text: string;
  /** Number of the bit that is in the spindle at the start. */
  tool: number;
}

/** Widest turn of a chord of an arc. */
const TURN = Math.PI / 36;

/** Reads absolute metric programs of lines and arcs in the XY plane, word by word; shares nothing with the reader. */
function plainMoves({ text, tool }: PlainProgram, zero: { x: number; y: number; z: number }): PlainMove[] {
  const out: PlainMove[] = [];
  const now = { X: Number.NaN, Y: Number.NaN, Z: Number.NaN };
  let [mode, feed, way, speed, had, next] = [0, 0, 0, 0, tool, tool];
  for (const [i, raw] of text.split('\n').entries()) {
    const words = [
      ...raw
        .replace(/\([^)]*\)|;.*/g, '')
        .toUpperCase()
        .matchAll(/([A-Z]) *(-?[\d.]+)/g),
    ];
    const value = Object.fromEntries(words.map(([, l, v]) => [l, Number(v)]));
    const codes = words.filter(([, l]) => l === 'G' || l === 'M').map(([, l, v]) => l + Number(v));
    if ('F' in value) feed = value.F;
    if ('S' in value) speed = value.S;
    if ('T' in value) next = value.T;
    for (const c of codes) {
      if (/^G[0123]$/.test(c)) mode = Number(c[1]);
      else if (c === 'M3') way = 1;
      else if (c === 'M4') way = -1;
      else if (c === 'M5') way = 0;
      else if (c === 'M6') had = next;
    }
    if (codes.includes('G4') || !('X' in value || 'Y' in value || 'Z' in value)) continue;
    const from = { ...now };
    for (const a of ['X', 'Y', 'Z'] as const) if (a in value) now[a] = value[a];
    if (Number.isNaN(now.X + now.Y + now.Z)) continue;
    const place = (x: number, y: number, z: number) => [x + zero.x, y + zero.y, z + zero.z];
    const start = [from.X, from.Y, from.Z].map((v, k) => (Number.isNaN(v) ? [now.X, now.Y, now.Z][k] : v));
    const put = (a: number[], b: number[]) =>
      out.push({
        line: i + 1,
        at: [...place(a[0], a[1], a[2]), ...place(b[0], b[1], b[2])],
        rapid: mode === 0,
        feed,
        spin: way * speed,
        tool: had,
      });
    if (mode < 2) {
      put(start, [now.X, now.Y, now.Z]);
      continue;
    }
    const [cx, cy] = [start[0] + (value.I ?? 0), start[1] + (value.J ?? 0)];
    const a0 = Math.atan2(start[1] - cy, start[0] - cx);
    let turn = Math.atan2(now.Y - cy, now.X - cx) - a0;
    if (mode === 2 && turn >= -1e-9) turn -= 2 * Math.PI;
    if (mode === 3 && turn <= 1e-9) turn += 2 * Math.PI;
    const n = Math.ceil(Math.abs(turn) / TURN);
    const r = Math.hypot(start[0] - cx, start[1] - cy);
    const on = (k: number) => [
      cx + r * Math.cos(a0 + (turn * k) / n),
      cy + r * Math.sin(a0 + (turn * k) / n),
      start[2] + ((now.Z - start[2]) * k) / n,
    ];
    for (let k = 1; k <= n; k++) put(on(k - 1), on(k));
  }
  return out;
}

/** Figures that differ from a limit by less are left to the rules: mm, and shares. */
const CLEAR = { rapid: 0.2, deep: 0.3, bite: 0.25, feed: 1.1, width: 0.4, disc: 0.45 };

/** What a move meets, by dense search, and the board lowered by it. */
function meet(stock: HeightField, cutter: Cutter, m: PlainMove, by: Int32Array, program: number) {
  const profile = profileOf(cutter);
  const { R } = profile;
  const [x0, y0, , x1, y1] = m.at;
  const long = Math.hypot(x1 - x0, y1 - y0);
  const [ux, uy] = long > 1e-9 ? [(x1 - x0) / long, (y1 - y0) / long] : [1, 0];
  const steps = Math.ceil(4 + 8 * Math.hypot(long, m.at[5] - m.at[2]));
  const out = { volume: 0, area: 0, high: 0, bite: 0, deep: 0, left: -Infinity, right: Infinity };
  const cells = (v: number, o: number) => (v - o) / stock.cell;
  const [i0, i1] = [Math.min(x0, x1) - R, Math.max(x0, x1) + R].map((v) => cells(v, stock.originX));
  const [j0, j1] = [Math.min(y0, y1) - R, Math.max(y0, y1) + R].map((v) => cells(v, stock.originY));
  for (let j = Math.max(0, Math.ceil(j0)); j <= Math.min(stock.height - 1, j1); j++) {
    for (let i = Math.max(0, Math.ceil(i0)); i <= Math.min(stock.width - 1, i1); i++) {
      const [x, y] = [stock.originX + i * stock.cell, stock.originY + j * stock.cell];
      const k = j * stock.width + i;
      const old = stock.data[k];
      // No cutter is lower than its tip.
      if (old <= Math.min(m.at[2], m.at[5])) continue;
      const swept = sweptOver(profile, m.at, x, y, steps);
      if (!swept || old - swept.z <= 1e-4) continue;
      if (m.rapid) {
        out.deep = Math.max(out.deep, old - swept.z);
        continue;
      }
      stock.data[k] = swept.z;
      by[k] = program * 1e6 + m.line;
      out.volume += (old - swept.z) * stock.cell ** 2;
      out.area += stock.cell ** 2;
      out.high = Math.max(out.high, old - swept.tip);
      if (old - swept.tip <= cutter.maxStepdown) continue;
      const [a, b] = [(x - x0) * ux + (y - y0) * uy, (y - y0) * ux - (x - x0) * uy];
      out.bite = Math.max(out.bite, old - swept.tip);
      if (a < 0) continue;
      out.left = Math.max(out.left, b);
      out.right = Math.min(out.right, b);
    }
  }
  return out;
}

/** What is wrong with a cutting move that meets wood, by the limits of bit and machine. @param sunk how deep the moves before it went straight down into wood */
function wrongWith(
  m: PlainMove,
  cutter: Cutter,
  view: SetupView,
  met: ReturnType<typeof meet>,
  sunk: number,
): string[] {
  const out: string[] = [];
  const drop = m.at[2] - m.at[5];
  const aside = Math.hypot(m.at[3] - m.at[0], m.at[4] - m.at[1]);
  const long = Math.hypot(drop, aside);
  const { machine, board } = view;
  if (m.spin <= 0) out.push('the spindle does not turn');
  else if (m.spin > machine.maxRpm * 1.01 || m.spin < machine.minRpm * 0.99) out.push('a speed the spindle has not');
  if (drop > 0.3 && drop > 1.4 * aside && (m.feed * drop) / long > cutter.plunge * CLEAR.feed)
    out.push('down too fast');
  if (m.spin > 0 && m.feed / (m.spin * cutter.flutes) > board.material.chipLoad.most * CLEAR.feed)
    out.push('chips too thick');
  if (aside <= 0.1 * drop) {
    const solid = met.area / (Math.PI * (cutter.diameter / 2) ** 2) > CLEAR.disc;
    if (solid && sunk + Math.min(drop, met.high) > cutter.maxPlungeDepth + CLEAR.bite && met.volume > 1)
      out.push('straight down too deep');
  } else if (met.bite > cutter.maxStepdown * 1.02 + CLEAR.bite && met.left - met.right > CLEAR.width * cutter.diameter)
    out.push('more at once than the bit takes');
  return out;
}

/** A board cut plainly: what is left, by which line of which program each cell was last lowered, and what harms on the way. */
export interface PlainCut {
  stock: HeightField;
  by: Int32Array;
  harms: Harm[];
}

/** Cuts a board with programs by the plain definition, cell by cell, and lists what breaks a limit of bit, machine or setup by a clear margin. */
export function cutBoardPlainly(view: SetupView, grid: HeightField, programs: PlainProgram[]): PlainCut {
  const stock = { ...grid, data: new Float32Array(grid.data.length) };
  const by = new Int32Array(stock.data.length);
  const harms: Harm[] = [];
  programs.forEach((program, n) => {
    const harm = (line: number, what: string) => harms.push({ file: program.file, line, what });
    const moves = plainMoves(program, zeroOf(view.board, view.setup));
    let sunk = 0;
    for (const m of moves) {
      const cutter = view.cutters.find((c) => c.number === m.tool);
      if (!cutter) continue;
      const met = meet(stock, cutter, m, by, n);
      const axes = (['x', 'y', 'z'] as const).map((a, k) => Math.abs(m.at[k + 3] - m.at[k]) / view.machine.maxFeed[a]);
      const long = Math.hypot(m.at[3] - m.at[0], m.at[4] - m.at[1], m.at[5] - m.at[2]);
      if (m.rapid) {
        if (met.deep > CLEAR.rapid) harm(m.line, 'a rapid into wood');
        sunk = 0;
        continue;
      }
      if (m.feed < 9) harm(m.line, 'hardly any feed');
      else if (long > 1 && (Math.max(...axes) * m.feed) / long > CLEAR.feed) harm(m.line, 'faster than the machine');
      if (met.volume > 0.02) for (const what of wrongWith(m, cutter, view, met, sunk)) harm(m.line, what);
      const straight = Math.hypot(m.at[3] - m.at[0], m.at[4] - m.at[1]) <= 0.1 * (m.at[2] - m.at[5]);
      sunk = straight && met.volume > 0.02 ? sunk + Math.min(m.at[2] - m.at[5], met.high) : 0;
    }
    const last = moves.at(-1);
    if (!last) return;
    if (last.at[5] < view.setup.heights.everything - 0.01) harm(last.line, 'does not end at travel height');
    if (!/\bM5\b/.test(program.text)) harm(last.line, 'ends with the spindle turning');
  });
  return { stock, by, harms };
}

/** Where a board is clearly lower than it was to be: the line that did it, the deepest place first. */
export function tooDeep(cut: PlainCut, wanted: HeightField, programs: PlainProgram[]): Harm[] {
  const { width, height } = wanted;
  const worst = new Map<number, number>();
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      // Walls are met to a cell.
      let low = Infinity;
      for (let b = Math.max(0, j - 1); b <= Math.min(height - 1, j + 1); b++)
        for (let a = Math.max(0, i - 1); a <= Math.min(width - 1, i + 1); a++)
          low = Math.min(low, wanted.data[b * width + a]);
      const over = low - cut.stock.data[k];
      if (over > CLEAR.deep) worst.set(cut.by[k], Math.max(over, worst.get(cut.by[k]) ?? 0));
    }
  }
  return [...worst]
    .sort((a, b) => b[1] - a[1])
    .map(([at]) => ({ file: programs[Math.floor(at / 1e6)].file, line: at % 1e6, what: 'deeper than it was to go' }));
}
