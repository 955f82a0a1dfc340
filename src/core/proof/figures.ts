import { worstBite } from './checks/bite';
import { cuts, endOf, isRapid, wayOf } from './checks/run-places';
import type { Held } from './holds';
import type { Run } from './simulate';

/** The deepest bite of a program against what its bit may take. Setup coordinates, mm. */
export interface BiteFigure {
  bit: string;
  deep: number;
  most: number;
  x: number;
  y: number;
  z: number;
  line: number;
}

/** What the proof saw of a program. */
export interface ProgramFigures {
  /** Wood removed, mm3. */
  volume: number;
  /** Null where nothing is cut along. */
  bite: BiteFigure | null;
  /** Share of the way at feed that meets no wood. */
  air: number;
  /** What holds when it has ended. */
  held: Omit<Held, 'file'>;
}

/** Adds up what the runs of one program show. */
export class Tally {
  bite: BiteFigure | null = null;
  private fed = 0;
  private idle = 0;

  get air(): number {
    return this.fed > 0 ? this.idle / this.fed : 0;
  }

  add(run: Run): void {
    const [i, deep] = worstBite(run);
    const { name, maxStepdown: most } = run.cutter;
    if (i >= 0 && (!this.bite || deep / most > this.bite.deep / this.bite.most))
      this.bite = { bit: name, deep, most, ...endOf(run, i), line: run.lines[i] };
    for (let k = 0; k < run.bites.length; k++) {
      if (isRapid(run, k)) continue;
      const { long } = wayOf(run, k);
      this.fed += long;
      if (!cuts(run, k)) this.idle += long;
    }
  }
}
