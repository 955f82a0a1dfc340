import type { ReliefOf } from '../doc/relief-of';
import { hashNoise } from '../outline/shapes';

/** Where a point lies in an outline. */
export interface Spot {
  /** Place in the layer's own frame, mm from its middle. */
  x: number;
  y: number;
  /** Distance from the outline, mm. */
  edge: number;
  /** Length along the ring that it is nearest to, and that ring's own length, mm. */
  along: number;
  ring: number;
}

const smooth = (t: number) => {
  const c = Math.max(0, Math.min(1, t));
  return c * c * (3 - 2 * c);
};
const arc = (u: number) => Math.sqrt(Math.max(0, 1 - u * u));

/** Whole repeats of about `pitch` along a closed line of `total` mm, so that the last meets the first. */
const repeats = (total: number, pitch: number) => Math.max(1, Math.round(total / pitch));

/** A layer's size and rise, mm. */
interface Size {
  x: number;
  y: number;
  rise: number;
}

/** Height 0..1 at a spot, or null where there is nothing. */
export type Form = (s: Spot) => number | null;

type Of<K extends ReliefOf['kind']> = Extract<ReliefOf, { kind: K }>;

/** A border: its section over 0..1 of its width from the edge, and what lies further in. */
function border(r: { width: number; band: boolean }, inside: number, section: (u: number, s: Spot) => number): Form {
  const beyond = r.band ? null : inside;
  return (s) => {
    const u = s.edge / r.width;
    return u >= 1 ? beyond : section(u, s);
  };
}

function rope(r: Of<'rope'>): Form {
  return border(r, 0, (u, s) => {
    const n = repeats(s.ring, r.pitch);
    // Strands lie over a round core and run around it at a slant of one pitch a width.
    const turn = (s.along / s.ring) * n + u;
    const strand = Math.abs(2 * (turn - Math.floor(turn)) - 1);
    return arc(2 * u - 1) * (0.72 + 0.28 * arc(strand));
  });
}

function pearls(r: Of<'pearls'>): Form {
  return border(r, 0, (_, s) => {
    const n = repeats(s.ring, Math.max(r.pitch, r.width));
    const step = s.ring / n;
    const a = (((s.along / step) % 1) - 0.5) * step;
    return arc(Math.min(1, Math.hypot(a, s.edge - r.width / 2) / (r.width / 2)));
  });
}

function shell(r: Of<'shell'>, half: number, size: Size): Form {
  // Ribs fan from the middle of the lower edge.
  return (s) => {
    const [x, y] = [s.x / (size.x / 2), s.y / size.y + 0.5];
    const angle = Math.atan2(x, Math.max(y, 0)) / (Math.PI / 2);
    const t = ((angle + 1) / 2) * r.ribs;
    const rib = arc(2 * (t - Math.floor(t)) - 1);
    const far = Math.min(1, Math.hypot(x, y));
    return smooth(s.edge / (0.15 * half)) * (0.45 + 0.55 * Math.sin((Math.PI / 2) * far)) * (0.55 + 0.45 * rib);
  };
}

function weave(r: Of<'weave'>): Form {
  return (s) => {
    const i = Math.floor(s.x / r.pitch);
    const j = Math.floor(s.y / r.pitch);
    const u = 2 * (s.x / r.pitch - i) - 1;
    const v = 2 * (s.y / r.pitch - j) - 1;
    // Over and under by turns: the strip on top arches along its way and is round across.
    return (i + j) % 2 === 0 ? 0.35 + 0.65 * arc(0.8 * u) * arc(0.95 * v) : 0.35 + 0.65 * arc(0.8 * v) * arc(0.95 * u);
  };
}

function gouge(r: Of<'gouge'>): Form {
  // Short hollow cuts in rows, each shifted, slanted and sunk a little by chance.
  return (s) => {
    let h = 1;
    const row = Math.floor(s.y / r.width);
    for (let j = row - 1; j <= row + 1; j++) {
      const shift = hashNoise(j, r.seed);
      const col = Math.floor(s.x / r.length + shift);
      for (let i = col - 1; i <= col + 1; i++) {
        const chance = (k: number) => hashNoise(i * 7919 + j, r.seed + k) - 0.5;
        const cx = (i + 0.5 - shift + 0.3 * chance(1)) * r.length;
        const cy = (j + 0.5 + 0.3 * chance(2)) * r.width;
        const a = 0.35 * chance(3);
        const u = ((s.x - cx) * Math.cos(a) + (s.y - cy) * Math.sin(a)) / (0.75 * r.length);
        const v = ((s.y - cy) * Math.cos(a) - (s.x - cx) * Math.sin(a)) / (0.8 * r.width);
        const d2 = u * u + v * v;
        if (d2 < 1) h = Math.min(h, 1 - (0.8 + 0.4 * chance(4)) * (1 - d2));
      }
    }
    return Math.max(0, h);
  };
}

/**
 * What a relief is like at every spot of its outline: which kind it is is asked once, not at every cell.
 * @param half the outline's inner radius, mm: the largest distance from its edge
 */
export function formOf(r: ReliefOf, half: number, size: Size): Form {
  switch (r.kind) {
    case 'flat':
      return () => 1;
    case 'dome':
      return (s) => arc(1 - Math.min(1, s.edge / half));
    case 'dish':
      return (s) => 1 - arc(1 - Math.min(1, s.edge / half));
    case 'bevel':
      return border(r, 1, (u) => u);
    case 'cove':
      // A hollow quarter round.
      return border(r, 1, (u) => 1 - arc(u));
    case 'ogee':
      // An S of two quarter rounds, hollow at the foot and round at the shoulder.
      return border(r, 1, (u) => (u < 0.5 ? (1 - arc(2 * u)) / 2 : (1 + arc(2 - 2 * u)) / 2));
    case 'bead':
      return border(r, 0, (u) => arc(2 * u - 1));
    case 'rope':
      return rope(r);
    case 'pearls':
      return pearls(r);
    case 'shell':
      return shell(r, half, size);
    case 'flutes':
      return (s) => {
        const t = s.x / r.pitch + 0.5;
        return 1 - arc(2 * (t - Math.floor(t)) - 1);
      };
    case 'weave':
      return weave(r);
    case 'gouge':
      return gouge(r);
    case 'vee': {
      const width = veeWidth(r.angle, size.rise);
      return (s) => Math.min(1, s.edge / width);
    }
    case 'ripples':
      return (s) => (1 + Math.cos((2 * Math.PI * Math.hypot(s.x, s.y)) / r.pitch)) / 2;
  }
}

/** Whether a relief needs to know where along the edge a spot lies, or only how far from it, or neither. */
export function needsOf(r: ReliefOf): 'nothing' | 'edge' {
  return r.kind === 'flat' || r.kind === 'flutes' || r.kind === 'weave' || r.kind === 'gouge' || r.kind === 'ripples'
    ? 'nothing'
    : 'edge';
}

/** How far from its edge a V groove is `depth` mm deep: half of width = 2 depth tan(half angle). */
export const veeWidth = (angle: number, depth: number) => depth * Math.tan((angle * Math.PI) / 360);

/** Borders stand within this of the edge, mm; others reach everywhere. @param rise the layer's, mm */
export function reachOf(r: ReliefOf, rise: number): number {
  if (r.kind === 'vee') return veeWidth(r.angle, rise);
  return 'width' in r && r.kind !== 'gouge' ? r.width : Infinity;
}
