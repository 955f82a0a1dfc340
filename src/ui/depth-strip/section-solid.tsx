/** Heights along a section, at even steps. */
export interface Heights {
  target: ArrayLike<number>;
  cut: ArrayLike<number> | null;
  rough: ArrayLike<number> | null;
  /** The underside; null where nothing is cut from there. */
  under: ArrayLike<number> | null;
}

/** Where a section is drawn: pixels of a step and of a height, and the board's thickness, mm. */
export interface SectionPlace {
  n: number;
  at(i: number): number;
  py(z: number): number;
  thickness: number;
}

/** A coordinate as it is written in a path, to a tenth of a pixel. */
const tenth = (v: number): number => Math.round(v * 10) / 10;

/** Along heights from left to right, or back: level stretches by their ends alone, so that a flat ground costs nothing to draw. */
export function traced(h: (i: number) => number, { n, at, py, thickness }: SectionPlace, back = false): string {
  const steps: string[] = [];
  let level = Number.NaN;
  let passed = -1;
  for (let s = 0; s < n; s++) {
    const i = back ? n - 1 - s : s;
    const y = tenth(py(Math.max(h(i), -thickness)));
    if (y === level && s < n - 1) {
      passed = i;
      continue;
    }
    if (passed >= 0 && y !== level) steps.push(`${tenth(at(passed))} ${level}`);
    steps.push(`${tenth(at(i))} ${y}`);
    level = y;
    passed = -1;
  }
  return steps.join('L');
}

/** The wood along a section: what stands between the side that is up and the underside, with lines for roughing and target. */
export function SectionSolid({ heights, place }: { heights: Heights; place: SectionPlace }) {
  const { target, cut, rough, under } = heights;
  const { n, at, py, thickness } = place;
  const trace = (h: ArrayLike<number>) => `M${traced((i) => h[i], place)}`;
  const solid = cut ?? target;
  const top = trace(solid);
  const low = tenth(py(-thickness));
  // Where the board is open its underside is no higher than what is up.
  const below = under
    ? traced((i) => Math.min(under[i], solid[i]), place, true)
    : `${tenth(at(n - 1))} ${low}L${tenth(at(0))} ${low}`;
  return (
    <>
      <path d={`${top}L${below}Z`} fill="var(--wood)" />
      {rough && <path d={trace(rough)} fill="none" stroke="var(--soft)" strokeWidth={1.2} strokeDasharray="4 3" />}
      <path d={top} fill="none" stroke="var(--color-base-content)" strokeWidth={1.5} />
      {under && <path d={`M${below}`} fill="none" stroke="var(--color-base-content)" strokeWidth={1.5} />}
      {cut && <path d={trace(target)} fill="none" stroke="var(--color-primary)" strokeWidth={0.7} />}
    </>
  );
}
