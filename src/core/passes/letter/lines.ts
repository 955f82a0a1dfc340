import { cellsWithin } from '../../arrange/cells-within';
import type { Groove } from '../../arrange/grooves';
import { COUNTS, meetingOf, NEAR, reachOf, WallFoot, type Walls } from '../../arrange/vee-walls';
import type { Cutter } from '../../cutter/cutter';
import { cellPlace, type HeightField, makeField, nearestCell, sampleField } from '../../field/height-field';
import { medialAxis, thinChain } from '../../outline/medial';
import { NearestOutline } from '../../outline/nearest';
import { offsetPolygon } from '../../outline/union';
import type { PassContext } from '../context';
import { LEVEL } from '../flat/fields';
import { lowestTip } from '../lowest-tip';
import type { Ground } from './ground';
import { roundGround } from './round-ground';

/** Distance between the places along an outline that its middle is found from, mm. */
const SPACING = 0.05;
/** Longest step between places at which the depth is worked out, mm, and how far what is kept of them may lie off, mm. */
const STEP = 0.3;
/** Steps are halved down to this where the tip's height bends, as where a blunt tip begins to sink, mm. */
const FINEST = 0.02;
const STRAIGHT = 0.004;
/** How much lower than it may be the tip runs on the straight line between two places at most, mm. */
const LOWER = 0.0005;
/** How many cells high a step between two of them is a cliff. */
const CLIFF = 4;
/** Up to so many times the reach of the bit on both sides of it the middle takes the ridge down that the walls leave. */
const MIDDLE = 2.5;

/** Ground steeper than this beside an outline is an edge, mm a mm. */
const STEEP = 1;

/** A line that the tip follows: x y z, and how high the surface lies there that its depth counts from. */
export interface Line {
  points: Float64Array;
  surface: Float64Array;
  closed: boolean;
  done: boolean;
}

/** The target's height at a place, read between its cells; over a cliff that of the highest of them. */
function heightAt(f: HeightField, x: number, y: number): number {
  return sampleField(f, x, y, CLIFF * f.cell);
}

/** Highest of the target at eight places around one: at a letter's point some of them lie outside it. */
function highestAround(f: HeightField, x: number, y: number, r: number): number {
  let high = -Infinity;
  for (let a = 0; a < 8; a++)
    high = Math.max(high, heightAt(f, x + r * Math.cos((a * Math.PI) / 4), y + r * Math.sin((a * Math.PI) / 4)));
  return high;
}

/** A line along places: its depth worked out at each, and between them wherever a straight move would not have it. @param place height of the tip at a place, and of the surface that it counts from */
function lineAlong(xy: number[], closed: boolean, place: (x: number, y: number) => [number, number]): Line {
  const chain: number[] = [];
  /** From the last place to this one, by way of the middle wherever the tip is not on the straight line there. */
  const on = (x: number, y: number, z: number) => {
    const n = chain.length;
    const [x0, y0, z0] = [chain[n - 3], chain[n - 2], chain[n - 1]];
    const [mx, my] = [(x0 + x) / 2, (y0 + y) / 2];
    const mz = place(mx, my)[0];
    const low = mz - (z0 + z) / 2;
    if (Math.hypot(x - x0, y - y0) > FINEST && (low > LOWER || low < -STRAIGHT / 2)) {
      on(mx, my, mz);
      on(x, y, z);
      return;
    }
    // So near to each other that it is not worth halving: both are as much higher as the line between them is too low. Where the depth
    // bends once between them that is at most twice what it is in the middle.
    const up = Math.max(0, 2 * low);
    chain[n - 1] += up;
    chain.push(x, y, z + up);
  };
  chain.push(xy[0], xy[1], place(xy[0], xy[1])[0]);
  for (let k = 2; k < xy.length; k += 2) on(xy[k], xy[k + 1], place(xy[k], xy[k + 1])[0]);
  const points = raisedOver(thinChain(Float64Array.from(chain), STRAIGHT), chain);
  const surface = Float64Array.from(
    { length: points.length / 3 },
    (_, k) => place(points[3 * k], points[3 * k + 1])[1],
  );
  return { points, surface, closed, done: false };
}

/** Places around a blunt tip's rim where it is asked what lies under it. */
const RIM_PLACES = 8;

/**
 * The highest of a groove's bottom under a flat tip at a place inside it, mm: read between cells, each without its own share of the groove, for a
 * point, and the rim of a flat, would sink between the cells of ground that slopes.
 */
function bottomOf(g: Groove, f: HeightField, near: NearestOutline): (x: number, y: number, flat: number) => number {
  const rise = 1 / Math.tan((g.angle * Math.PI) / 360);
  const hit = { distance: 0, along: 0, ring: 0 };
  const share = (x: number, y: number) => Math.min(g.deepest, near.find(x, y, hit).distance * rise);
  const known = new Map<number, number>();
  /** The ground at a cell as if there were no groove. */
  const ground = (i: number, j: number): number => {
    const k = j * f.width + i;
    let z = known.get(k);
    if (z === undefined) {
      z = f.data[k] + share(f.originX + i * f.cell, f.originY + j * f.cell);
      known.set(k, z);
    }
    return z;
  };
  const four = makeField({ width: 2, height: 2, cell: f.cell, originX: 0, originY: 0 });
  const at = (x: number, y: number): number => {
    const i = Math.min(f.width - 2, Math.max(0, Math.floor((x - f.originX) / f.cell)));
    const j = Math.min(f.height - 2, Math.max(0, Math.floor((y - f.originY) / f.cell)));
    four.originX = f.originX + i * f.cell;
    four.originY = f.originY + j * f.cell;
    four.data.set([ground(i, j), ground(i + 1, j), ground(i, j + 1), ground(i + 1, j + 1)]);
    return heightAt(four, x, y) - share(x, y);
  };
  return (x, y, flat) => {
    let high = at(x, y);
    // On level ground all of the rim stands as high.
    if (flat === 0 || Math.max(...four.data) - Math.min(...four.data) < LEVEL) return high;
    for (let n = 0; n < RIM_PLACES; n++) {
      const a = (2 * Math.PI * n) / RIM_PLACES;
      high = Math.max(high, at(x + flat * Math.cos(a), y + flat * Math.sin(a)));
    }
    return high;
  };
}

/**
 * The ground along a groove's outline as the target has it: read just outside, where it is as it was before the groove, and carried on straight to the
 * outline; not where that is steep, or another groove.
 */
function footOf(g: Groove, walls: Walls, f: HeightField): WallFoot {
  const { cells } = cellsWithin(g.polygon, f);
  const carved = (x: number, y: number) => cells[nearestCell(f, x, y)] === 1;
  const step = 1.5 * f.cell;
  return new WallFoot(walls, (x, y, [nx, ny]) => {
    const [x1, y1, x2, y2] = [x + step * nx, y + step * ny, x + 2 * step * nx, y + 2 * step * ny];
    if (carved(x1, y1)) return highestAround(f, x, y, step);
    const near = heightAt(f, x1, y1);
    const fall = carved(x2, y2) ? 0 : near - heightAt(f, x2, y2);
    return Math.abs(fall) < step * STEEP ? near + fall : near;
  });
}

/** The ground of a groove, and how deep a bit goes in it. */
function groundOf(g: Groove, { target: { field } }: PassContext, cutter: Cutter): Ground {
  if (field.drum) return roundGround(g, field, field.drum, cutter);
  const flat = cutter.tipDiameter / 2;
  const rise = 1 / Math.tan((g.angle * Math.PI) / 360);
  const near = new NearestOutline(g.polygon, 1);
  const lowest = lowestTip(field, cutter);
  const hit = { distance: 0, along: 0, ring: 0 };
  const beside = 1.5 * field.cell;
  // Just outside the outline the surface is as it was before the letter.
  const outwards = (x: number, y: number, d: number): [number, number] => {
    const [fx, fy] = near.foot(x, y);
    return [fx + ((fx - x) * beside) / d, fy + ((fy - y) * beside) / d];
  };
  const surfaceAt = (x: number, y: number, d: number) =>
    d > beside ? heightAt(field, ...outwards(x, y, d)) : highestAround(field, x, y, beside);
  const walls = { polygon: g.polygon, fall: rise, deepest: g.deepest, reach: reachOf(g.angle, g.deepest) };
  const foot = footOf(g, walls, field);
  if (foot.level) {
    const bottom = bottomOf(g, field, near);
    const place = (x: number, y: number): [number, number] => {
      const d = near.find(x, y, hit).distance;
      const surface = surfaceAt(x, y, d);
      const depth = Math.min(g.deepest, Math.max(0, (d - flat) * rise));
      const own = d > beside + flat ? bottom(x, y, flat) : -Infinity;
      return [lowest(x, y, Math.max(surface - depth, own)), surface];
    };
    return { near, place, middle: (x, y) => [x, y] };
  }
  const place = (x: number, y: number): [number, number] => {
    const d = near.find(x, y, hit).distance;
    const surface = surfaceAt(x, y, d);
    const wall = Math.min(surface, foot.at(x, y, COUNTS * d + NEAR, flat));
    // Where the target is more than the walls, as on a level bottom, the tip would sink between its cells.
    const k = nearestCell(field, x, y);
    const cell = cellPlace(field, k);
    const own =
      field.data[k] > foot.at(cell.x, cell.y, COUNTS * (d + field.cell)) + LEVEL
        ? rimHigh(field, x, y, flat)
        : -Infinity;
    return [lowest(x, y, Math.max(wall, own)), surface];
  };
  return { near, place, middle: (x, y, r) => meetingOf(foot, walls, x, y, r) };
}

/** Highest of the target under a tip's flat, mm. */
function rimHigh(f: HeightField, x: number, y: number, flat: number): number {
  return Math.max(heightAt(f, x, y), flat > 0 ? highestAround(f, x, y, flat) : -Infinity);
}

/** The lines of a groove: the middle between its walls where the bit reaches both, else along each wall. */
export function linesOf(g: Groove, ctx: PassContext, cutter: Cutter): Line[] {
  const flat = cutter.tipDiameter / 2;
  const rise = 1 / Math.tan((g.angle * Math.PI) / 360);
  // Deepest along walls that stand further apart than the bit reaches at that depth.
  const limit = g.deepest / rise + flat;
  const { near, place, middle } = groundOf(g, ctx, cutter);
  const hit = { distance: 0, along: 0, ring: 0 };
  const settled = (xy: number[]) => {
    const out: number[] = [];
    for (let k = 0; k < xy.length; k += 2)
      out.push(...middle(xy[k], xy[k + 1], near.find(xy[k], xy[k + 1], hit).distance));
    return out;
  };
  const out: Line[] = [];
  let widest = 0;
  for (const c of medialAxis(g.polygon, SPACING)) {
    for (let k = 2; k < c.length; k += 3) widest = Math.max(widest, c[k]);
    // Where walls stand much further apart than the bit reaches, each is followed: a groove along the middle would clear nothing.
    for (const xy of within(c, MIDDLE * limit)) out.push(lineAlong(settled(inSteps(xy)), false, place));
  }
  if (widest > limit)
    for (const r of offsetPolygon(g.polygon, -limit, STRAIGHT))
      out.push(lineAlong(inSteps([...r, r[0], r[1]]), true, place));
  return out;
}

/** A thinned chain, some of its places raised so that the line along it is nowhere lower than the whole chain. */
function raisedOver(thin: Float64Array, chain: number[]): Float64Array {
  const out = thin.slice();
  let k = 0;
  for (let a = 0; a + 3 < thin.length; a += 3) {
    const [x0, y0, z0, x1, y1, z1] = thin.subarray(a, a + 6);
    const long = Math.hypot(x1 - x0, y1 - y0);
    let up = 0;
    for (k += 3; chain[k] !== x1 || chain[k + 1] !== y1 || chain[k + 2] !== z1; k += 3) {
      const on = ((chain[k] - x0) * (x1 - x0) + (chain[k + 1] - y0) * (y1 - y0)) / (long * long || 1);
      up = Math.max(up, chain[k + 2] - z0 - Math.min(1, Math.max(0, on)) * (z1 - z0));
    }
    out[a + 2] = Math.max(out[a + 2], z0 + up);
    out[a + 5] = Math.max(out[a + 5], z1 + up);
  }
  return out;
}

/** The stretches of a chain of x y distance triples where the distance is no more than `most`, as x y places. */
function within(c: Float64Array, most: number): number[][] {
  const out: number[][] = [];
  let run: number[] = [];
  const end = () => {
    if (run.length >= 4) out.push(run);
    run = [];
  };
  for (let k = 0; k < c.length; k += 3) {
    const [a, b] = [k > 0 ? c[k - 1] : c[2], c[k + 2]];
    if (k > 0 && a <= most !== b <= most) {
      const t = (most - a) / (b - a);
      run.push(c[k - 3] + t * (c[k] - c[k - 3]), c[k - 2] + t * (c[k + 1] - c[k - 2]));
      if (b > most) end();
    }
    if (b <= most) run.push(c[k], c[k + 1]);
  }
  end();
  return out;
}

/** A polyline with places no further apart than STEP. */
function inSteps(xy: number[]): number[] {
  const out = [xy[0], xy[1]];
  for (let k = 2; k < xy.length; k += 2) {
    const [dx, dy] = [xy[k] - xy[k - 2], xy[k + 1] - xy[k - 1]];
    const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / STEP));
    for (let s = 1; s <= parts; s++) out.push(xy[k - 2] + (dx * s) / parts, xy[k - 1] + (dy * s) / parts);
  }
  return out;
}
