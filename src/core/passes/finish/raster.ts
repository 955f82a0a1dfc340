import { inRegion, type Region } from '../../arrange/target';
import { type Cutter, tipRadius } from '../../cutter/cutter';
import { inTurn, narrowed } from '../../field/drum';
import { type HeightField, nearestCell, sampleField } from '../../field/height-field';
import { joinedPoints, thinLine } from '../../motion/thin';
import { beyondEnds, type PassContext } from '../context';
import type { Live } from '../live';
import { lowestTip } from '../lowest-tip';
import { overCliff } from './cliff';
import { type Laid, layRows } from './laid';
import { faded, idleCells, leaveAir, type Rest } from './rest';
import type { FinishPass } from './schema';

/** Samples that the row between is longer than the crease, at each end. */
export const CREASE_ENDS = 4;

/** One stretch of a row: samples at equal steps from (x0, y0) along the row's direction. */
export interface Stretch {
  x0: number;
  y0: number;
  z: Float64Array;
  /** Places beside it, half a stepover on, that are cut on the way. */
  sags: Sag[];
  done: boolean;
}

/** A part of the row between a stretch and the next: its first and last sample, counted along the stretch, and its heights. */
export interface Sag {
  from: number;
  to: number;
  z: Float64Array;
  /** How far beside the stretch, mm to the left of its direction. */
  aside: number;
}

/** The rows of a finishing pass on the tip's surface: where they lie, how high, and as points to be cut. */
export class Raster {
  private readonly cutter: Cutter;
  /** What the bit rests on, and where its tip then is. */
  private readonly surface: HeightField;
  private readonly offset: HeightField;
  readonly rest: Rest;
  readonly ux: number;
  readonly uy: number;
  /** From one sample of a row to the next, mm. */
  readonly step: number;
  /** How far apart places of neighbouring rows lie at most that a link joins without asking what stands between them, mm. */
  readonly near: number;
  private readonly wider: number;
  private readonly cliff: number;
  private readonly laid: Laid;
  /** 1 where the whole bit stands on fields that are cleared already; null when none is. */
  private readonly idle: Uint8Array | null;
  /** Exact heights at any place, made when a cliff asks for them. */
  private lowest: ReturnType<typeof lowestTip> | null = null;

  constructor(
    private readonly ctx: PassContext,
    private readonly pass: FinishPass,
    { cutter, surface, offset, rest }: { cutter: Cutter; surface: HeightField; offset: HeightField; rest: Rest },
    private readonly region: Region,
  ) {
    this.rest = rest;
    this.cutter = cutter;
    this.surface = surface;
    this.offset = offset;
    this.laid = layRows(ctx, pass, cutter.diameter / 2);
    [this.ux, this.uy] = this.laid.along;
    this.step = offset.cell;
    this.near = 4 * pass.stepover;
    this.cliff = 4 * offset.cell;
    // The tip's centre goes one radius beyond the outline, so that it sweeps the foot of the wall, and a row more.
    this.idle = idleCells(ctx, cutter);
    const inwards = Math.max(tipRadius(cutter), cutter.diameter / 4);
    this.wider = Math.max(0, region.trench - inwards) + pass.stepover - region.trench;
  }

  /** Whether the tip may be over a place, or so far beside it. */
  allowed(x: number, y: number, beside = 0): boolean {
    const { outside, field } = this.ctx.target;
    const { board, mode } = this.ctx;
    if (field.drum) {
      if (beyondEnds(this.ctx, x, this.cutter.diameter / 2 - beside)) return false;
      if (this.region.area.kind === 'face') return mode === 'raised' || outside[nearestCell(field, x, y)] <= beside;
      return inRegion(
        this.region,
        mode,
        { x, y: inTurn(field.drum, y) },
        outside[nearestCell(field, x, y)],
        this.wider + beside,
      );
    }
    const cx = Math.min(Math.max(x, 0), board.x);
    const cy = Math.min(Math.max(y, 0), board.y);
    const beyond = Math.hypot(x - cx, y - cy);
    const k = nearestCell(field, cx, cy);
    if (this.idle?.[k] && beyond === 0) return false;
    const out = outside[k] + beyond;
    if (this.region.area.kind === 'face')
      return beyond <= this.cutter.diameter / 2 + beside && (mode === 'raised' || out <= beside);
    return inRegion(this.region, mode, { x, y }, out, this.wider + beside);
  }

  /** Whether the tip may be over a place and goes below the board's top there. */
  cuts(x: number, y: number): boolean {
    return this.allowed(x, y) && this.heightAt(x, y) < -1e-6;
  }

  private height(x: number, y: number): number {
    return Math.max(sampleField(this.offset, x, y, this.cliff), this.ctx.target.ground);
  }

  /** How much shorter a way around is at a height than on the sheet of a drum; 1 on a board. */
  narrowed(z: number): number {
    const { drum } = this.ctx.target.field;
    return drum ? narrowed(drum, z) : 1;
  }

  /** Length of a stretch, mm. */
  lengthOf(s: Stretch): number {
    return (s.z.length - 1) * this.step;
  }

  /** The axis that the rows lie along, if any. */
  alongAxis(): 'x' | 'y' | null {
    return this.uy === 0 ? 'x' : this.ux === 0 ? 'y' : null;
  }

  /** The rows' numbers, in their order. */
  get rows(): number[] {
    return this.laid.numbers;
  }

  /** For rows along an axis: the coordinate of row v across it. */
  across(v: number): number {
    const { ox, oy } = this.laid.place(v);
    return this.uy === 0 ? oy : ox;
  }

  /** Heights of row v, sample by sample; NaN outside the area and where nothing stands above the tip's surface. */
  heights(v: number, exact: Float32Array | null): Float64Array {
    const { ux, uy, step, offset } = this;
    const { ground } = this.ctx.target;
    const { ox, oy, nu } = this.laid.place(v);
    const out = new Float64Array(2 * nu + 1).fill(Number.NaN);
    for (let u = -nu; u <= nu; u++) {
      const x = ox + u * step * ux;
      const y = oy + u * step * uy;
      if (!this.allowed(x, y)) continue;
      let z: number;
      if (exact) {
        const k = Math.round(uy === 0 ? (x - offset.originX) / step : (y - offset.originY) / step);
        z = k >= 0 && k < exact.length ? Math.max(exact[k], ground) : ground;
      } else z = this.height(x, y);
      if (z < -1e-6) out[u + nu] = z;
    }
    leaveAir(out, this.rest, (i) => [ox + (i - nu) * step * ux, oy + (i - nu) * step * uy], step);
    return out;
  }

  /** The unbroken stretches of a row, with the sags of the row between it and the next. */
  stretches(v: number, heights: Float64Array, middle: Float64Array | undefined, sags: [number, number][]): Stretch[] {
    const { ox, oy, nu } = this.laid.place(v);
    const out: Stretch[] = [];
    const aside = this.laid.between(v);
    for (let k = 0; k < heights.length; k++) {
      if (Number.isNaN(heights[k])) continue;
      const start = k;
      while (k + 1 < heights.length && !Number.isNaN(heights[k + 1])) k++;
      if (k === start) continue;
      const end = k;
      const u = (start - nu) * this.step;
      const own = sags
        .filter(([a, b]) => a >= start && b <= end)
        .map(([a, b]) => {
          let from = a;
          let to = b;
          const solid = (i: number) => i >= start && i <= end && !Number.isNaN((middle as Float64Array)[i]);
          while (a - from < CREASE_ENDS && solid(from - 1)) from--;
          while (to - b < CREASE_ENDS && solid(to + 1)) to++;
          return { from: from - start, to: to - start, z: (middle as Float64Array).slice(from, to + 1), aside };
        });
      out.push({
        x0: ox + u * this.ux,
        y0: oy + u * this.uy,
        z: heights.slice(start, end + 1),
        sags: own,
        done: false,
      });
    }
    return out;
  }

  /** Where a stretch ends. */
  end(s: Stretch): [number, number] {
    const l = this.lengthOf(s);
    return [s.x0 + l * this.ux, s.y0 + l * this.uy];
  }

  /** A stretch as thinned x y z points, from its end when `turned`; its sags are cut on the way, there and back. */
  points(s: Stretch, turned: boolean): Float64Array {
    const n = s.z.length;
    const [x0, y0] = turned ? this.end(s) : [s.x0, s.y0];
    const [ux, uy] = turned ? [-this.ux, -this.uy] : [this.ux, this.uy];
    const z = turned ? s.z.slice().reverse() : s.z;
    const sags = turned
      ? s.sags
          .map((g) => ({ from: n - 1 - g.to, to: n - 1 - g.from, z: g.z.slice().reverse(), aside: g.aside }))
          .reverse()
      : s.sags;
    const at = (i: number, aside: number): [number, number] => [
      x0 + i * this.step * ux - aside * this.uy,
      y0 + i * this.step * uy + aside * this.ux,
    ];
    const pieces: Float64Array[] = [];
    let i = 0;
    for (const g of sags) {
      pieces.push(this.thin(z.subarray(i, g.to + 1), ...at(i, 0), ux, uy));
      pieces.push(this.link(...at(g.to, 0), ...at(g.to, g.aside)));
      pieces.push(this.thin(g.z.slice().reverse(), ...at(g.to, g.aside), -ux, -uy));
      pieces.push(this.link(...at(g.from, g.aside), ...at(g.from, 0)));
      i = g.from;
    }
    pieces.push(this.thin(z.subarray(i), ...at(i, 0), ux, uy));
    return joinedPoints(pieces);
  }

  /** Heights at even steps as thinned x y z points; between steps where they drop over a cliff the surface is looked up. */
  private thin(z: Float64Array, x0: number, y0: number, ux: number, uy: number, step = this.step): Float64Array {
    const out: number[] = [];
    const add = (along: number, height: number) => out.push(x0 + along * ux, y0 + along * uy, height);
    const at = new Float64Array(z.length + 1);
    const hs = new Float64Array(z.length + 1);
    let from = 0;
    for (let k = 0; k < z.length; k++) {
      const cliff = k + 1 < z.length && Math.abs(z[k + 1] - z[k]) > this.cliff;
      if (k + 1 < z.length && !cliff) continue;
      const n = thinLine(z.subarray(from, k + 1), k + 1 - from, step, this.pass.tolerance, at, hs);
      for (let i = 0; i < n; i++) add(from * step + at[i], hs[i]);
      if (cliff) {
        const place = (q: number): [number, number] => [x0 + (k + q) * step * ux, y0 + (k + q) * step * uy];
        overCliff([z[k], z[k + 1]], { cliff: this.cliff, place, surface: (x, y) => this.exact(x, y) }, out);
      }
      from = k + 1;
    }
    return Float64Array.from(out);
  }

  /** The height of the tip's surface at a place; beside a cliff, where the cells around it do not tell, as the cells of the board do. */
  heightAt(x: number, y: number): number {
    const { offset, cliff } = this;
    const z = sampleField(offset, x, y, cliff);
    if (z === sampleField(offset, x, y)) return Math.max(z, this.ctx.target.ground);
    return this.exact(x, y);
  }

  /** The same worked out from the board's cells. */
  private exact(x: number, y: number): number {
    this.lowest ??= lowestTip(this.surface, this.cutter);
    return this.lowest(x, y, this.ctx.target.ground);
  }

  /** Points of a straight link on the surface, drawn up where nothing stands. */
  link(x0: number, y0: number, x1: number, y1: number): Float64Array {
    const l = Math.hypot(x1 - x0, y1 - y0);
    const n = Math.max(2, Math.ceil(l / this.step) + 1);
    const z = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const [x, y] = [x0 + ((x1 - x0) * i) / (n - 1), y0 + ((y1 - y0) * i) / (n - 1)];
      z[i] = this.heightAt(x, y) + faded(this.rest, x, y);
    }
    const step = l / (n - 1);
    return this.thin(z, x0, y0, l > 0 ? (x1 - x0) / l : 0, l > 0 ? (y1 - y0) / l : 0, step);
  }

  /**
   * Whether a link may run on the surface from one place to another: not longer than a hop is worth, inside the area, never up to the top, and
   * through no more wood than the bit may plunge into, but for the way to the next row.
   */
  linkable(x0: number, y0: number, x1: number, y1: number, live: Live): boolean {
    const l = Math.hypot(x1 - x0, y1 - y0);
    const short = l <= this.near;
    if (!short && l > this.rest.hop) return false;
    const n = Math.max(4, Math.ceil(l / this.step));
    const { maxPlungeDepth } = this.cutter;
    for (let s = 0; s <= n; s++) {
      const x = x0 + ((x1 - x0) * s) / n;
      const y = y0 + ((y1 - y0) * s) / n;
      // Rows end on the last cell of their area: between two ends its border may lie a cell further in.
      if (!this.allowed(x, y, this.step)) return false;
      const z = this.heightAt(x, y);
      if (z >= -1e-6 || (!short && live.solid({ x, y, z }, maxPlungeDepth) > maxPlungeDepth)) return false;
    }
    return true;
  }
}
