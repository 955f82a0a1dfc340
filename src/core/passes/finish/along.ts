import { ringLength, simplifyLine, simplifyRing } from '../../field/contours';
import { joinedPoints } from '../../motion/thin';
import type { Wood } from '../wood';
import { type Line, stretchesOf } from './bands';
import { emit, hopTo, type Way } from './emit';
import type { Raster } from './raster';

/** Parts of lines shorter than so many stepovers are left out: the way to each would take longer than what they take off is worth. */
const SHORT = 2;
/** Lines that are named in the program, about. */
const SAID = 20;
/** Size of the squares by which the ends of lines are found, mm. */
const SQUARE = 4;

/** A place at which a guide line can be begun: a vertex of a closed one, an end of an open one. */
interface Begin {
  guide: Guide;
  i: number;
  x: number;
  y: number;
}

interface Guide extends Line {
  done: boolean;
}

/** What stands over lines while they are cut, and how much of it is worth cutting, mm. */
interface Standing {
  wood: Wood;
  least: number;
  raster: Raster;
}

/** Length of a line seen from above, mm. */
const lineLength = ({ xy, closed }: Line): number =>
  ringLength(xy) - (closed ? 0 : Math.hypot(xy[0] - xy[xy.length - 2], xy[1] - xy[xy.length - 1]));

/** A guide line as it is cut: its parts where the tip may be and something is to be cut, with fewer points. */
function guidesOf(line: Line, raster: Raster, stepover: number): Guide[] {
  const { xy } = line;
  return stretchesOf(line, (i) => raster.cuts(xy[2 * i], xy[2 * i + 1]))
    .map((l) => ({
      ...l,
      xy: (l.closed ? simplifyRing : simplifyLine)(l.xy, l.wander),
      done: false,
    }))
    .filter((l) => lineLength(l) > SHORT * stepover);
}

/** A guide line laid on the tip's surface from one of its points on: thinned x y z points. */
function laid({ xy, closed }: Guide, i: number, raster: Raster): Float64Array {
  const n = xy.length / 2;
  const order = Array.from({ length: closed ? n + 1 : n }, (_, s) => (closed || i === 0 ? (i + s) % n : n - 1 - s));
  const parts: Float64Array[] = [];
  for (let s = 1; s < order.length; s++) {
    const [a, b] = [order[s - 1], order[s]];
    const part = raster.link(xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1]);
    parts.push(s > 1 ? part.subarray(3) : part);
  }
  return joinedPoints(parts);
}

/** Where guide lines can be begun, by place. */
class Begins {
  private readonly squares = new Map<string, Begin[]>();
  /** Squares that the lines lie in, at most so many from each other. */
  private span = 1;

  constructor(guides: Guide[]) {
    let [low, high] = [Infinity, -Infinity];
    for (const guide of guides) {
      const { xy, closed } = guide;
      const n = xy.length / 2;
      for (let i = 0; i < n; i += closed ? 1 : n - 1) {
        const begin = { guide, i, x: xy[2 * i], y: xy[2 * i + 1] };
        const [a, b] = [Math.floor(begin.x / SQUARE), Math.floor(begin.y / SQUARE)];
        const list = this.squares.get(`${a} ${b}`);
        if (list) list.push(begin);
        else this.squares.set(`${a} ${b}`, [begin]);
        [low, high] = [Math.min(low, a, b), Math.max(high, a, b)];
      }
    }
    if (guides.length > 0) this.span = high - low + 2;
  }

  /** What is left in a square; lines that are done are forgotten. */
  private left(key: string): Begin[] {
    const list = this.squares.get(key);
    if (!list) return [];
    const now = list.filter((b) => !b.guide.done);
    if (now.length === 0) this.squares.delete(key);
    else if (now.length < list.length) this.squares.set(key, now);
    return now;
  }

  /** The place nearest to another at which a line can be begun; undefined when all are done. */
  nearest(x: number, y: number): Begin | undefined {
    const [a, b] = [Math.floor(x / SQUARE), Math.floor(y / SQUARE)];
    let best: Begin | undefined;
    let least = Infinity;
    const look = (i: number, j: number) => {
      for (const begin of this.left(`${a + i} ${b + j}`)) {
        const d = Math.hypot(begin.x - x, begin.y - y);
        if (d < least) [best, least] = [begin, d];
      }
    };
    for (let r = 0; this.squares.size > 0; r++) {
      // Whatever lies in squares further out is further away than so much.
      if (best && least <= (r - 1) * SQUARE) break;
      if (r > this.span + Math.max(Math.abs(a), Math.abs(b))) break;
      for (let s = -r; s <= r; s++) {
        look(s, -r);
        if (r > 0) look(s, r);
        if (s > -r && s < r) {
          look(-r, s);
          look(r, s);
        }
      }
    }
    return best;
  }
}

/**
 * The parts of a laid line over which wood stands higher than `least` mm, with what lies between two of them where a hop over it does not pay.
 */
function standingParts(points: Float64Array, { wood, least, raster }: Standing): Float64Array[] {
  const { at, own } = sampled(points, raster.step);
  const n = own.length;
  const out: Float64Array[] = [];
  let [first, last] = [-1, -1];
  const close = () => {
    if (first < 0) return;
    const [from, to] = [Math.max(0, first - 1), Math.min(n - 1, last + 1)];
    const part: number[] = [];
    for (let i = from; i <= to; i++)
      if (own[i] || i === from || i === to) part.push(at[3 * i], at[3 * i + 1], at[3 * i + 2]);
    out.push(Float64Array.from(part));
    first = -1;
  };
  for (let i = 0; i < n; i++) {
    if (!wood.meets(at[3 * i], at[3 * i + 1], at[3 * i + 2], least)) continue;
    if (first >= 0 && (i - last) * raster.step > raster.rest.hop) close();
    if (first < 0) first = i;
    last = i;
  }
  close();
  return out;
}

/** Points of a line no further apart than a step, and which of them are its own. */
function sampled(points: Float64Array, step: number): { at: number[]; own: boolean[] } {
  const at = [points[0], points[1], points[2]];
  const own = [true];
  for (let i = 3; i < points.length; i += 3) {
    const n = Math.max(1, Math.ceil(Math.hypot(points[i] - points[i - 3], points[i + 1] - points[i - 2]) / step));
    for (let s = 1; s <= n; s++) {
      for (let k = 0; k < 3; k++) at.push(points[i - 3 + k] + ((points[i + k] - points[i - 3 + k]) * s) / n);
      own.push(s === n);
    }
  }
  return { at, own };
}

/** Cuts along guide lines where anything stands on them still, each from where the last one ended: on the surface where that is quicker than a hop. */
export function cutAlong(way: Way, lines: Line[], stepover: number, standing: Standing): void {
  const { path, raster, live } = way;
  const guides = lines.flatMap((l) => guidesOf(l, raster, stepover));
  const begins = new Begins(guides);
  const said = Math.ceil(guides.length / SAID);
  for (let n = 1; n <= guides.length; n++) {
    const next = path.moves === 0 ? begins.nearest(0, 0) : begins.nearest(path.x, path.y);
    if (!next) return;
    next.guide.done = true;
    const whole = laid(next.guide, next.i, raster);
    if ((n - 1) % said === 0) path.at(['line', n, guides.length]);
    for (const points of standingParts(whole, standing)) {
      const [x, y] = points;
      if (path.moves > 0 && raster.linkable(path.x, path.y, x, y, live))
        emit(way, raster.link(path.x, path.y, x, y), 'link');
      else hopTo(way, points);
      emit(way, points, 'cut');
    }
  }
}
