import { SEGMENT } from '../kernels/segment';
import { beginnings } from './beginnings';
import { cuts, isRapid, wayOf } from './checks/run-places';
import type { Run, WrittenProgram } from './simulate';
import { type PassWays, WAY_ARRAYS, WAYS, type WayKind, type Ways } from './way-parts';

const CODE = Object.fromEntries(WAYS.map((w, i) => [w, i])) as Record<WayKind, number>;

/** Steepest that a bit which follows a surface down is still cutting along it, and not going in: drop over way aside. */
const STEEP = 4;

/**
 * What each move of a run is. A bit goes in from where its rapid ends until it no longer goes down, or has met wood and goes on along it: straight
 * descents and whole ramps are on its way in, a row that goes on downhill is not.
 */
export function kindsOf(run: Run): Uint8Array {
  const n = run.bites.length;
  const out = new Uint8Array(n);
  let entering = true;
  for (let i = 0; i < n; i++) {
    if (isRapid(run, i)) {
      out[i] = CODE.rapid;
      entering = true;
      continue;
    }
    const { drop, aside } = wayOf(run, i);
    const straight = drop > STEEP * aside;
    if (entering && drop <= 0) entering = false;
    if (entering || straight) out[i] = CODE.entry;
    else out[i] = cuts(run, i) ? CODE.cut : CODE.air;
    // A plunge leads straight on along the surface; a ramp goes on down until it is level.
    if (straight && cuts(run, i)) entering = false;
  }
  return out;
}

/** Gathers the ways of a setup's runs as the proof sees them, one after the other. */
export class WayBook {
  private readonly parts: { kind: Uint8Array; places: Ways['places'] }[] = [];
  private readonly passes: PassWays[] = [];
  private count = 0;

  constructor(private readonly programs: WrittenProgram[]) {}

  add(run: Run): void {
    const n = run.bites.length;
    const program = this.programs.find((p) => p.file === run.file);
    if (n === 0 || !program) return;
    const kind = new Uint8Array(n + 1);
    kind.set(kindsOf(run), 1);
    const places = Object.fromEntries(WAY_ARRAYS.map((a) => [a, new Float32Array(n + 1)])) as Ways['places'];
    const [{ segments }, { x, y, z, feed, chip, bite, line }] = [run, places];
    [x[0], y[0], z[0], line[0]] = [segments[0], segments[1], segments[2], run.lines[0]];
    for (let i = 0; i < n; i++) {
      const s = i * SEGMENT;
      const to = i + 1;
      [x[to], y[to], z[to]] = [segments[s + 3], segments[s + 4], segments[s + 5]];
      [feed[to], chip[to], bite[to], line[to]] = [run.feeds[i], run.chip[i], run.bites[i], run.lines[i]];
    }
    this.passBegins(run, program);
    this.parts.push({ kind, places });
    this.count += n + 1;
  }

  /** Where its passes begin, as its comments say; a program from elsewhere is one way of all that it holds. */
  private passBegins(run: Run, { file, passes, titles }: WrittenProgram): void {
    const lines = beginnings(titles, run.notes) ?? passes.slice(0, 1).map(() => 0);
    lines.forEach((line, p) => {
      const first = run.lines.findIndex((l) => l >= line);
      const known = this.passes.some((w) => w.file === file && w.pass === passes[p]);
      if (first >= 0 && !known) this.passes.push({ pass: passes[p], file, from: this.count + first });
    });
  }

  get ways(): Ways {
    const kind = new Uint8Array(this.count);
    const places = Object.fromEntries(WAY_ARRAYS.map((a) => [a, new Float32Array(this.count)])) as Ways['places'];
    let at = 0;
    for (const part of this.parts) {
      kind.set(part.kind, at);
      for (const a of WAY_ARRAYS) places[a].set(part.places[a], at);
      at += part.kind.length;
    }
    return { passes: this.passes, kind, places };
  }
}
