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

/** The wood along a section: what stands between the side that is up and the underside, with lines for roughing and target. */
export function SectionSolid({ heights, place }: { heights: Heights; place: SectionPlace }) {
  const { n, at, py, thickness } = place;
  const line = (h: (i: number) => number, order: number[]) =>
    order.map((i) => `L${at(i).toFixed(1)} ${py(Math.max(h(i), -thickness)).toFixed(1)}`).join('');
  const forth = Array.from({ length: n }, (_, i) => i);
  const trace = (h: ArrayLike<number>) => `M${line((i) => h[i], forth).slice(1)}`;
  const { target, cut, rough, under } = heights;
  const solid = cut ?? target;
  // Where the board is open its underside is no higher than what is up.
  const below = under
    ? line((i) => Math.min(under[i], solid[i]), forth.toReversed())
    : line(() => -thickness, [n - 1, 0]);
  return (
    <>
      <path d={`${trace(solid)}${below}Z`} fill="var(--wood)" />
      {rough && <path d={trace(rough)} fill="none" stroke="var(--soft)" strokeWidth={1.2} strokeDasharray="4 3" />}
      <path d={trace(solid)} fill="none" stroke="var(--color-base-content)" strokeWidth={1.5} />
      {under && <path d={`M${below.slice(1)}`} fill="none" stroke="var(--color-base-content)" strokeWidth={1.5} />}
      {cut && <path d={trace(target)} fill="none" stroke="var(--color-primary)" strokeWidth={0.7} />}
    </>
  );
}
