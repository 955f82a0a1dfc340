import { type Cutter, ridgeOf, stepoverBase } from '@/core/cutter/cutter';
import { cutterOf } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import type { Pass } from '@/core/doc/pass';
import { trenchFor } from '@/core/passes/rough/trench';
import type { SetupView } from '@/core/setup/view';

/** The job's own figures by which terms are explained, mm and degrees. */
export interface TermFigures {
  thickness: number;
  skin: number;
  rise: number;
  lift: number;
  /** The bit that is explained by, the width that its stepover is a share of, and whether its tip is round. */
  bit: string;
  wide: number;
  round: boolean;
  stepover: number;
  /** Ridge that a round tip leaves between rows; 0 for others. */
  ridge: number;
  stepdown: number;
  stock: number;
  ramp: number;
  trench: number;
  tab: { length: number; thickness: number };
}

type Numbers = Partial<Record<'stepover' | 'stepdown' | 'stockToLeave' | 'rampAngle' | 'peck', number>>;

/** Figures of common practice that stand where a job has none of its own (trade handbook, section 3). */
const USUAL = { stepover: 0.4, stepdown: 3, stock: 1, ramp: 14, tab: { length: 25, thickness: 8 } };

/** The first figure of a pass, or else of the job's others. */
function figure(key: keyof Numbers, pass: Pass | null, job: SetupView): number | undefined {
  const of = (p: Pass) => (p as Numbers)[key];
  return (pass ? of(pass) : undefined) ?? job.passes.map(of).find((v) => v !== undefined);
}

/** What terms are explained by at a place of the screen: the selected pass or layer first, then the rest of the job. */
export function termFigures(job: SetupView, pass: Pass | null, layer: Layer | null): TermFigures {
  const shown = pass ?? job.passes.find((p) => p.kind === 'finish') ?? job.passes[0] ?? null;
  const cutter: Cutter | undefined = (shown && cutterOf(job, shown)) ?? job.cutters[0];
  const wide = cutter ? stepoverBase(cutter) : 6;
  const round = cutter?.shape === 'ball' || cutter?.shape === 'tapered-ball';
  const stepover = figure('stepover', shown, job) ?? USUAL.stepover * wide;
  const stock = figure('stockToLeave', pass, job) ?? USUAL.stock;
  const rough = job.passes.find((p) => p.kind === 'rough');
  const roughBit = rough && cutterOf(job, rough);
  const relief = job.passes.flatMap((p) => ('area' in p && p.area.kind === 'relief' ? [p.area.trench] : []));
  const cutout = job.passes.find((p) => p.kind === 'cutout');
  const top = layer ?? job.layers.reduce<Layer | null>((m, l) => (m && m.rise >= l.rise ? m : l), null);
  return {
    thickness: job.board.thickness,
    skin: job.seat.skin,
    rise: top?.rise ?? 5,
    lift: top?.lift ?? 0,
    bit: cutter?.name ?? 'a bit',
    wide,
    round,
    stepover,
    ridge: cutter && round ? ridgeOf(cutter, stepover) : 0,
    stepdown: figure('stepdown', shown, job) ?? figure('peck', shown, job) ?? USUAL.stepdown,
    stock,
    ramp: figure('rampAngle', pass, job) ?? USUAL.ramp,
    trench: relief.find((t) => t !== null) ?? trenchFor(roughBit?.diameter ?? wide, stock),
    tab: cutout?.kind === 'cutout' ? cutout.tabs : USUAL.tab,
  };
}
