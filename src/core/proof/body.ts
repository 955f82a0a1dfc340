import { type Cutter, shankFrom } from '../cutter/cutter';
import { AIR, type HeightField, padField, poolField } from '../field/height-field';
import { BITE, ENGAGED } from '../kernels/engagement';
import { type KernelHost, offsetRows } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { removeBy, spansOf } from '../kernels/spans';
import { highestAlong } from '../passes/context';

/** A part of a bit over its flutes: a cylinder that begins `height` mm over the tip. */
export interface BodyPart {
  name: 'shank' | 'holder';
  radius: number;
  height: number;
}

/** A part in the wood: the move (number in the run) at which it stood deepest, and how deep, mm. */
export interface BodyMet extends BodyPart {
  move: number;
  deep: number;
}

/** Less than this is rounding, mm. */
const LEAST = 0.05;
/** A move is looked at in pieces no longer than this, mm: what its own bit has taken on the way there is gone by then. */
const PIECE = 2;
/** Cell of the coarse look, mm, about. */
const COARSE = 1;
/** Most cells that one look at all doubtful moves may come to: beyond, they are looked at on coarser cells, of this side at most, mm. */
const MOST_CELLS = 2e9;
const COARSEST = 0.5;

/** Shank and holder of a bit. */
export function bodyOf(cutter: Cutter): BodyPart[] {
  return [
    { name: 'shank', radius: cutter.shankDiameter / 2, height: shankFrom(cutter) },
    { name: 'holder', radius: cutter.holderDiameter / 2, height: cutter.stickOut },
  ];
}

/** The moves during which a part may stand in wood, judged by what stands before the first of them, on coarse cells taken at their highest. */
function suspects(surface: HeightField, segments: Float64Array, { radius, height }: BodyPart): number[] {
  const n = segments.length / SEGMENT;
  let low = Infinity;
  for (let s = 0; s < segments.length; s += SEGMENT) low = Math.min(low, segments[s + 2], segments[s + 5]);
  let top = AIR;
  for (const v of surface.data) if (v > top) top = v;
  if (top <= low + height + LEAST) return [];
  const pooled = poolField(surface, Math.max(1, Math.round(COARSE / surface.cell)), 'max');
  // Grown by what a coarse cell's middle may be off its farthest corner, here and at the place that is looked up.
  const reach = radius + 1.5 * pooled.cell;
  const padded = padField(pooled, Math.ceil(reach / pooled.cell) + 1, AIR);
  const tall = { ...padded, data: offsetRows(padded, { shape: 0, R: reach, p0: 0, p1: 0, p2: 0 }, 0) };
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const [x0, y0, z0, x1, y1, z1] = segments.subarray(i * SEGMENT, i * SEGMENT + 6);
    if (highestAlong(tall, x0, y0, x1, y1) > Math.min(z0, z1) + height + LEAST) out.push(i);
  }
  return out;
}

/**
 * The stock on which so many doubtful moves are looked at: itself, or where that would take too long coarser cells that are wholly material, so
 * that nothing is told that is not so.
 */
export function stockFor(surface: HeightField, { radius }: BodyPart, doubtful: number): HeightField {
  const cells = (doubtful * Math.PI * radius ** 2) / surface.cell ** 2;
  const factor = Math.min(Math.ceil(Math.sqrt(cells / MOST_CELLS)), Math.floor(COARSEST / surface.cell));
  return factor > 1 ? poolField(surface, factor, 'min') : { ...surface, data: surface.data.slice() };
}

/** Goes through the moves of a run again, with the stock as it stands at each of them. */
class Again {
  worst: { move: number; deep: number } | null = null;

  constructor(
    private readonly stock: HeightField,
    private readonly bit: { cutter: Cutter; part: BodyPart },
    private readonly host: KernelHost,
  ) {}

  /** How deep the part goes into what stands now during each of the moves, mm. */
  private async depths(segments: Float64Array, moves: number[]): Promise<Float32Array> {
    const { radius, height } = this.bit.part;
    const lifted = new Float64Array(moves.length * SEGMENT);
    moves.forEach((m, i) => {
      const [x0, y0, z0, x1, y1, z1] = segments.subarray(m * SEGMENT, m * SEGMENT + 6);
      lifted.set([x0, y0, z0 + height, x1, y1, z1 + height, 1], i * SEGMENT);
    });
    const told = await this.host.engage(this.stock, { shape: 0, R: radius, p0: 0, p1: 0, p2: 0 }, lifted, 0);
    return Float32Array.from(moves, (_, i) => told[i * ENGAGED + BITE]);
  }

  /**
   * Cuts the stock with moves from..to, and looks at the doubtful ones among them. What stands before the first of them stands at most
   * at each: who is clear of that is clear, the others are looked at in halves. Of those that are not, only one deeper than the worst so far matters.
   * @param number what each move is called; its own number where none is given
   */
  async go(
    segments: Float64Array,
    [from, to]: [number, number],
    doubtful: number[],
    number = (m: number) => m,
  ): Promise<void> {
    const deep = doubtful.length > 0 ? await this.depths(segments, doubtful) : [];
    const left = doubtful.filter((_, i) => deep[i] > Math.max(LEAST, this.worst?.deep ?? 0));
    if (left.length > 0 && to - from === 1) return this.one(segments, from, deep[0], number);
    if (left.length > 0) {
      const half = (from + to) >> 1;
      await this.go(
        segments,
        [from, half],
        left.filter((m) => m < half),
        number,
      );
      await this.go(
        segments,
        [half, to],
        left.filter((m) => m >= half),
        number,
      );
      return;
    }
    await removeBy(this.host, this.stock, this.bit.cutter, segments.subarray(from * SEGMENT, to * SEGMENT));
  }

  /** A move that meets wood as it stood before it: in pieces, so that what it takes itself on the way counts no more. */
  private async one(segments: Float64Array, m: number, deep: number, number: (m: number) => number): Promise<void> {
    const [x0, y0, z0, x1, y1, z1, rapid] = segments.subarray(m * SEGMENT, (m + 1) * SEGMENT);
    const pieces = rapid === 1 ? 1 : Math.ceil(Math.hypot(x1 - x0, y1 - y0, z1 - z0) / PIECE);
    if (pieces <= 1) {
      this.worst = { move: number(m), deep };
      return removeBy(this.host, this.stock, this.bit.cutter, segments.subarray(m * SEGMENT, (m + 1) * SEGMENT));
    }
    const at = (t: number) => [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t, z0 + (z1 - z0) * t];
    const parts = Array.from({ length: pieces }, (_, i) => [...at(i / pieces), ...at((i + 1) / pieces), rapid]);
    await this.go(
      Float64Array.from(parts.flat()),
      [0, pieces],
      parts.map((_, i) => i),
      () => number(m),
    );
  }
}

/**
 * Where a part of the bit that is wider than its cutter stands in wood, at any moment of a run, rapids too: against the stock as it stood
 * then. Exact to a cell across (of half a millimetre at most where very many moves are doubtful), and to what the cutter itself takes within
 * `PIECE` mm of way.
 * @param surface as it stands before the run; it is left as it is
 * @param segments of the run, SEGMENT numbers each
 */
export async function bodyMet(
  surface: HeightField,
  { cutter, segments }: { cutter: Cutter; segments: Float64Array },
  host: KernelHost,
): Promise<BodyMet[]> {
  const out: BodyMet[] = [];
  const thinnest = Math.min(...spansOf(cutter, segments).map((s) => s.profile.R));
  for (const part of bodyOf(cutter)) {
    if (part.radius <= thinnest + 1e-6) continue;
    const doubtful = suspects(surface, segments, part);
    if (doubtful.length === 0) continue;
    const again = new Again(stockFor(surface, part, doubtful.length), { cutter, part }, host);
    await again.go(segments, [0, segments.length / SEGMENT], doubtful);
    if (again.worst) out.push({ ...part, ...again.worst });
  }
  return out;
}
