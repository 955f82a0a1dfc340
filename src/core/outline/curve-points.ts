import svgpath from 'svgpath';

/** A point that shapes a stroke: one that it runs through, or one that bends it. mm, y down as SVG has it. */
export interface CurvePoint {
  x: number;
  y: number;
  bends: boolean;
  /** Whether a line begins at it. */
  starts: boolean;
}

type Step = [string, ...number[]];

/** A stroke's steps as absolute moves, lines and curves, none shortened. @throws RangeError */
function stepsOf(d: string): Step[] {
  const path = svgpath(d).abs().unshort().unarc();
  const err = (path as unknown as { err?: string }).err;
  if (err) throw new RangeError(`the stroke cannot be read: ${err}`);
  const out: Step[] = [];
  path.iterate((s, _i, x, y) => {
    if (s[0] === 'H') out.push(['L', s[1] as number, y]);
    else if (s[0] === 'V') out.push(['L', x, s[1] as number]);
    else if (s[0] !== 'Z' && s[0] !== 'z') out.push([...s] as Step);
  });
  return out;
}

const written = (steps: Step[]) =>
  steps.map(([c, ...n]) => `${c} ${n.map((v) => Number(v.toFixed(3))).join(' ')}`).join(' ');

/** The points of a stroke in its order. @throws RangeError when it cannot be read */
export function curvePoints(d: string): CurvePoint[] {
  return stepsOf(d).flatMap((s) => {
    const points: CurvePoint[] = [];
    for (let i = 1; i < s.length; i += 2)
      points.push({ x: s[i] as number, y: s[i + 1] as number, bends: i + 2 < s.length, starts: s[0] === 'M' });
    return points;
  });
}

/** The stroke with its n-th point at x, y; what bends it beside a point that it runs through goes along. @throws RangeError */
export function movePoint(d: string, n: number, x: number, y: number): string {
  const steps = stepsOf(d);
  const places: { step: Step; at: number; bends: boolean }[] = [];
  for (const step of steps) {
    for (let i = 1; i < step.length; i += 2) places.push({ step, at: i, bends: i + 2 < step.length });
  }
  const p = places[n];
  if (!p) throw new RangeError(`the stroke has ${places.length} points, not ${n + 1}`);
  const dx = x - (p.step[p.at] as number);
  const dy = y - (p.step[p.at + 1] as number);
  const beside = p.bends ? [] : [places[n - 1], places[n + 1]].filter((q) => q?.bends);
  for (const q of [p, ...beside]) {
    q.step[q.at] = (q.step[q.at] as number) + dx;
    q.step[q.at + 1] = (q.step[q.at + 1] as number) + dy;
  }
  return written(steps);
}

/** The stroke with one bend more at its end, as long as its last step and in the way that it runs there. @throws RangeError */
export function addBend(d: string): string {
  const steps = stepsOf(d);
  const points = curvePoints(d);
  const end = points[points.length - 1];
  const before = points[points.length - 2];
  if (!before) throw new RangeError('the stroke has one point only; draw it as "M 0 0 C 20 -10 40 -10 60 0"');
  const last = points.slice(0, -1).findLast((p) => !p.bends) ?? points[0];
  const long = Math.hypot(end.x - last.x, end.y - last.y) || 10;
  const way = Math.hypot(end.x - before.x, end.y - before.y) || 1;
  const [c, n] = [(end.x - before.x) / way, (end.y - before.y) / way];
  const on = (t: number) => [end.x + c * long * t, end.y + n * long * t];
  steps.push(['C', ...on(1 / 3), ...on(2 / 3), ...on(1)] as Step);
  return written(steps);
}
