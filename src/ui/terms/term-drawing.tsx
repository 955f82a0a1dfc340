import type { ReactNode } from 'react';
import type { TermFigures } from './term-figures';
import type { Term } from './terms';

const [W, H] = [220, 84];
const WOOD = { fill: 'var(--wood)', stroke: 'var(--color-base-content)', strokeWidth: 1.2 };
const BLUE = 'var(--color-primary)';

/** A measure between two points, with a stroke at each end. */
function Measure({ x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number }) {
  const upright = Math.abs(x1 - x0) < Math.abs(y1 - y0);
  const [u, v] = upright ? [4, 0] : [0, 4];
  return (
    <path
      d={`M${x0} ${y0}L${x1} ${y1}M${x0 - u} ${y0 - v}l${2 * u} ${2 * v}M${x1 - u} ${y1 - v}l${2 * u} ${2 * v}`}
      stroke={BLUE}
      strokeWidth={1.8}
      fill="none"
    />
  );
}

/** A hill of a height on ground at a height, leaning by an angle. */
const hill = (ground: number, high: number, lean = 0) =>
  `M0 ${H}V${ground}H50L62 ${ground - high + lean}H158L170 ${ground - 2 * lean}V${ground}H${W}V${H}Z`;

/** Rows of a round or flat bit of a width, a stepover apart; both in pixels. */
function Rows({ wide, step, round }: { wide: number; step: number; round: boolean }) {
  const n = 4;
  const left = W / 2 - ((n - 1) * step) / 2;
  const bottom = 62;
  const r = wide / 2;
  return (
    <>
      <path d={`M0 ${H}V40H${W}V${H}Z`} {...WOOD} />
      {Array.from({ length: n }, (_, i) => {
        const x = left + i * step;
        const d = round
          ? `M${x - r} 6V${bottom - r}A${r} ${r} 0 0 0 ${x + r} ${bottom - r}V6Z`
          : `M${x - r} 6V${bottom}H${x + r}V6Z`;
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are their places
            key={i}
            d={d}
            fill="var(--paper)"
            stroke="var(--color-base-content)"
            strokeOpacity={0.6}
          />
        );
      })}
      <Measure x0={left + step} y0={74} x1={left + 2 * step} y1={74} />
    </>
  );
}

const DRAWINGS: Record<Term, (f: TermFigures) => ReactNode> = {
  rise: () => (
    <>
      <path d={hill(66, 44)} {...WOOD} />
      <Measure x0={188} y0={66} x1={188} y1={22} />
    </>
  ),
  lift: (f) => {
    // Its share of lift and rise, as far as it can be seen.
    const up = Math.min(40, Math.max(10, (50 * Math.abs(f.lift)) / (Math.abs(f.lift) + f.rise)));
    return (
      <>
        <path d={`M0 ${H}V72H${W}V${H}Z`} {...WOOD} />
        <path d={`M50 ${72 - up}L62 ${30 - up / 2}H158L170 ${72 - up}Z`} {...WOOD} />
        <Measure x0={110} y0={72} x1={110} y1={72 - up} />
      </>
    );
  },
  slope: () => (
    <>
      <path d={hill(64, 30, 12)} {...WOOD} />
      <path d="M62 34H190" stroke={BLUE} strokeDasharray="3 3" fill="none" />
    </>
  ),
  thinning: () => (
    <>
      <path d={`M0 ${H}V66H46C70 66 70 26 94 26H126C150 26 150 66 174 66H${W}V${H}Z`} {...WOOD} />
      <Measure x0={46} y0={76} x1={94} y1={76} />
    </>
  ),
  joins: () => (
    <>
      <path d={`M0 ${H}V60H70L84 40H150V60H${W}V${H}Z`} {...WOOD} />
      <path d="M40 60L60 22H120L140 60" fill="none" stroke={BLUE} strokeWidth={1.6} strokeDasharray="4 3" />
    </>
  ),
  skin: (f) => {
    const gap = f.skin > 0 ? Math.min(24, Math.max(6, (40 * f.skin) / (f.skin + f.rise))) : 0;
    return (
      <>
        <rect x={10} y={12} width={W - 20} height={H - 18} fill="none" stroke="var(--wood-line)" />
        <path d={`M10 ${H - 6}V66H50L62 ${12 + gap}H158L170 66H${W - 10}V${H - 6}Z`} {...WOOD} />
        <Measure x0={110} y0={12} x1={110} y1={Math.max(14, 12 + gap)} />
      </>
    );
  },
  trench: () => (
    <>
      <path d={`M0 ${H}V18H40V66H84L92 28H180V${H}Z`} {...WOOD} />
      <Measure x0={40} y0={74} x1={84} y1={74} />
    </>
  ),
  stepover: (f) => {
    const wide = 50;
    return <Rows wide={wide} step={Math.max(5, Math.min(50, (wide * f.stepover) / f.wide))} round={f.round} />;
  },
  ridge: () => (
    <>
      <path d={`M0 ${H}V50Q27.5 76 55 50Q82.5 76 110 50Q137.5 76 165 50Q192.5 76 ${W} 50V${H}Z`} {...WOOD} />
      <Measure x0={110} y0={63} x1={110} y1={50} />
      <circle cx={82.5} cy={33} r={30} fill="none" stroke="var(--color-base-content)" strokeOpacity={0.6} />
    </>
  ),
  stepdown: () => (
    <>
      <path d={`M0 ${H}V18H60V36H160V18H${W}V${H}Z`} {...WOOD} />
      <path d="M60 54H160M60 72H160" stroke="var(--color-base-content)" strokeDasharray="3 3" fill="none" />
      <Measure x0={174} y0={18} x1={174} y1={36} />
    </>
  ),
  stock: () => (
    <>
      <path d={hill(58, 40)} fill="var(--hatch)" stroke="var(--color-base-content)" />
      <path d={hill(68, 40)} {...WOOD} />
      <Measure x0={110} y0={28} x1={110} y1={18} />
    </>
  ),
  ramp: (f) => {
    const across = 120;
    const down = Math.min(48, Math.max(6, across * Math.tan((f.ramp * Math.PI) / 180)));
    return (
      <>
        <path d={`M0 ${H}V20H40L${40 + across} ${20 + down}H${40 + across + 8}V20H${W}V${H}Z`} {...WOOD} />
        <path d={`M40 20L${40 + across} ${20 + down}`} stroke={BLUE} strokeWidth={2} fill="none" />
      </>
    );
  },
  tab: (f) => {
    const high = Math.min(50, Math.max(8, (56 * f.tab.thickness) / f.thickness));
    return (
      <>
        <path d={`M0 14H50V70H0ZM170 14H${W}V70H170Z`} {...WOOD} />
        <path d={`M50 70V${70 - high}H170V70Z`} {...WOOD} />
        <Measure x0={182} y0={70 - high} x1={182} y1={70} />
        <Measure x0={50} y0={78} x1={170} y1={78} />
      </>
    );
  },
  milling: () => (
    <>
      <path d={`M0 ${H}V52H${W}V${H}Z`} {...WOOD} />
      <circle cx={70} cy={40} r={24} fill="var(--paper)" stroke="var(--color-base-content)" />
      <path d="M70 24a16 16 0 0 1 16 16m-5 -4l5 5l5 -5" fill="none" stroke={BLUE} strokeWidth={1.8} />
      <path d="M108 20H160m-7 -5l7 5l-7 5" fill="none" stroke="var(--color-base-content)" strokeWidth={1.6} />
    </>
  ),
  web: () => (
    <>
      <path d={`M10 12H60Q110 52 160 12H210V72H150Q110 52 70 72H10Z`} {...WOOD} />
      <Measure x0={110} y0={33} x1={110} y1={61} />
    </>
  ),
};

/** A small drawing of what a term means, to the proportions of the job where it has them. */
export function TermDrawing({ term, figures }: { term: Term; figures: TermFigures }) {
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="mb-2 block w-full rounded border border-base-300 bg-(--paper)"
      aria-hidden
    >
      {DRAWINGS[term](figures)}
    </svg>
  );
}
