import type { HeightField } from './height-field';

/**
 * Weights of the edges to a cell's eight neighbours, so that the sum of the edges that a cut crosses is its length in cells, 5 % less to
 * 3 % more at any angle (Cauchy-Crofton for a lattice of eight directions, from memory). Four neighbours would overstate oblique necks by up to 41 %.
 */
const STRAIGHT = Math.PI / 8;
const OBLIQUE = Math.PI / (8 * Math.SQRT2);
/** Neighbours in pairs that point against each other, so that `d ^ 1` leads back. */
const DX = [1, -1, 0, 0, 1, -1, 1, -1];
const DY = [0, 0, 1, -1, 1, -1, -1, 1];
/** Most cells between two pieces that are cut exactly. */
const MOST = 200_000;

const OUT = -1;
const FROM = -2;
const TO = -3;

/** The cells between two pieces as a network: of each its eight neighbours, as node numbers, OUT, FROM or TO, and what can flow there. */
interface Network {
  next: Int32Array;
  room: Float64Array;
  nodes: number;
  /** What joins the two pieces directly. */
  direct: number;
}

/** Whether wood leads from a cell to its neighbour: an oblique step needs wood at one of its sides. */
function leads(f: HeightField, i: number, j: number, d: number, skin: number): boolean {
  const [a, b] = [i + DX[d], j + DY[d]];
  if (a < 0 || b < 0 || a >= f.width || b >= f.height || f.data[b * f.width + a] <= skin) return false;
  return d < 4 || f.data[j * f.width + a] > skin || f.data[b * f.width + i] > skin;
}

/** The network between two pieces: all standing cells that are reached from the first without passing the second; null when too many. */
function between(f: HeightField, of: Int32Array, from: number, held: Set<number>, skin: number): Network | null {
  const { width, data, cell } = f;
  const place = new Map<number, number>();
  const cells: number[] = [];
  const nodeAt = (k: number): number => {
    if (of[k] === from) return FROM;
    if (held.has(of[k])) return TO;
    let n = place.get(k);
    if (n === undefined) {
      n = cells.length;
      place.set(k, n);
      cells.push(k);
    }
    return n;
  };
  let direct = 0;
  const none = (i: number, j: number) => i < 0 || j < 0 || i >= width || j >= f.height || data[j * width + i] <= skin;
  /** An edge stands for the oblique ones beside it too where no wood is that they could lead through: a rib of one cell is as wide as it is. */
  const widthOf = (k: number, d: number): number => {
    if (d >= 4) return OBLIQUE;
    const i = k % width;
    const j = (k - i) / width;
    const missing = (a: number, b: number) => none(i + a, j + b) && none(i + DX[d] + a, j + DY[d] + b);
    const [a, b] = [DY[d], DX[d]];
    return STRAIGHT + (missing(a, b) ? OBLIQUE : 0) + (missing(-a, -b) ? OBLIQUE : 0);
  };
  const flow = (k: number, q: number, d: number) => Math.min(data[k], data[q]) * cell * widthOf(k, d);
  const each = (k: number, visit: (d: number, q: number) => void) => {
    const i = k % width;
    const j = (k - i) / width;
    for (let d = 0; d < 8; d++) if (leads(f, i, j, d, skin)) visit(d, (j + DY[d]) * width + i + DX[d]);
  };
  for (let k = 0; k < data.length; k++) {
    if (of[k] !== from) continue;
    each(k, (d, q) => {
      if (nodeAt(q) === TO) direct += flow(k, q, d);
    });
  }
  const next: number[] = [];
  const room: number[] = [];
  for (let n = 0; n < cells.length; n++) {
    if (cells.length > MOST) return null;
    const at = n * 8;
    for (let d = 0; d < 8; d++) {
      next[at + d] = OUT;
      room[at + d] = 0;
    }
    each(cells[n], (d, q) => {
      next[at + d] = nodeAt(q);
      room[at + d] = flow(cells[n], q, d);
    });
  }
  return { next: Int32Array.from(next), room: Float64Array.from(room), nodes: cells.length, direct };
}

/** Steps of every node from the piece that flows, over what has room; -1 where it does not come. */
function steps({ next, room, nodes }: Network, source: Float64Array): Int32Array {
  const level = new Int32Array(nodes).fill(-1);
  const queue = new Int32Array(nodes);
  let tail = 0;
  for (let n = 0; n < nodes; n++) {
    if (source[n] <= 0) continue;
    level[n] = 0;
    queue[tail++] = n;
  }
  for (let head = 0; head < tail; head++) {
    const n = queue[head];
    for (let d = 0; d < 8; d++) {
      const q = next[n * 8 + d];
      if (q < 0 || level[q] >= 0 || room[n * 8 + d] <= 0) continue;
      level[q] = level[n] + 1;
      queue[tail++] = q;
    }
  }
  return level;
}

/** Pushes what it can along one shortest way after the other from a node that the source feeds; returns what arrives. */
function push(net: Network, level: Int32Array, at: Int8Array, start: number, most: number): number {
  const { next, room } = net;
  const way: number[] = [];
  let node = start;
  let sent = 0;
  while (most - sent > 1e-12) {
    if (at[node] >= 8) {
      // Nothing leads on from here: back, and not this way again.
      if (way.length === 0) return sent;
      const edge = way.pop() as number;
      node = edge >> 3;
      at[node]++;
      continue;
    }
    const edge = node * 8 + at[node];
    const q = next[edge];
    if (room[edge] > 0 && q === TO) {
      let least = Math.min(most - sent, room[edge]);
      for (const e of way) least = Math.min(least, room[e]);
      for (const e of [...way, edge]) {
        room[e] -= least;
        if (next[e] >= 0) room[next[e] * 8 + ((e & 7) ^ 1)] += least;
      }
      sent += least;
      way.length = 0;
      node = start;
    } else if (room[edge] > 0 && q >= 0 && level[q] === level[node] + 1) {
      way.push(edge);
      node = q;
    } else at[node]++;
  }
  return sent;
}

/**
 * The least section of wood that has to be cut to part a piece from those that are held, mm2: the largest flow from the one to the others
 * (max-flow min-cut, by Dinic's way), where wood lets through as much as its thickness.
 * @param thick how much stands over every cell, mm
 * @param of the piece of each cell, -1 for what lies between pieces
 * @param skin wood no thicker than this parts, mm
 * @returns null where too much lies between them to be worked out
 */
export function leastCut(
  thick: HeightField,
  of: Int32Array,
  from: number,
  held: Set<number>,
  skin: number,
): number | null {
  const net = between(thick, of, from, held, skin);
  if (!net) return null;
  const source = new Float64Array(net.nodes);
  for (let e = 0; e < net.next.length; e++) if (net.next[e] === FROM) source[e >> 3] += net.room[e];
  let sum = net.direct;
  for (;;) {
    const level = steps(net, source);
    const at = new Int8Array(net.nodes);
    let sent = 0;
    for (let n = 0; n < net.nodes; n++) {
      if (source[n] <= 0) continue;
      const own = push(net, level, at, n, source[n]);
      source[n] -= own;
      sent += own;
    }
    if (sent <= 1e-12) return sum;
    sum += sent;
  }
}
