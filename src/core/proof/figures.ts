import { beginnings } from './beginnings';
import { worstBite } from './checks/bite';
import { cuts, endOf, isRapid, type Stretch, wayOf } from './checks/run-places';
import type { Held } from './holds';
import type { Run, WrittenProgram } from './simulate';

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

/** What the proof saw of moves. */
export interface MoveFigures {
  /** Null where nothing is cut along. */
  bite: BiteFigure | null;
  /** Share of the way at feed that meets no wood. */
  air: number;
}

/** What the proof saw of a program. */
export interface ProgramFigures extends MoveFigures {
  /** Wood removed, mm3. */
  volume: number;
  /** Its passes, where its comments tell where each of them begins. */
  byPass: (MoveFigures & { pass: string })[];
  /** What holds when it has ended. */
  held: Omit<Held, 'file'>;
}

/** Adds up what moves show. */
class Sum {
  bite: BiteFigure | null = null;
  private fed = 0;
  private idle = 0;

  add(run: Run, of: Stretch): void {
    const [i, deep] = worstBite(run, of);
    const { name, maxStepdown: most } = run.cutter;
    if (i >= 0 && (!this.bite || deep / most > this.bite.deep / this.bite.most))
      this.bite = { bit: name, deep, most, ...endOf(run, i), line: run.lines[i] };
    for (let k = of[0]; k < of[1]; k++) {
      if (isRapid(run, k)) continue;
      const { long } = wayOf(run, k);
      this.fed += long;
      if (!cuts(run, k)) this.idle += long;
    }
  }

  get figures(): MoveFigures {
    return { bite: this.bite, air: this.fed > 0 ? this.idle / this.fed : 0 };
  }
}

/** Adds up what the runs of one program show, as a whole and pass by pass. */
export class Tally {
  private readonly whole = new Sum();
  private readonly parts: Sum[];
  /** Whether the program says where its passes begin. */
  private told = false;

  constructor(private readonly program: WrittenProgram) {
    this.parts = program.passes.map(() => new Sum());
  }

  add(run: Run): void {
    const n = run.bites.length;
    this.whole.add(run, [0, n]);
    const begin = beginnings(this.program.titles, run.notes);
    if (!begin) return;
    const firstFrom = (line: number) => {
      const i = run.lines.findIndex((l) => l >= line);
      return i < 0 ? n : i;
    };
    this.parts.forEach((part, p) => {
      part.add(run, [firstFrom(begin[p]), p + 1 < begin.length ? firstFrom(begin[p + 1]) : n]);
    });
    this.told = true;
  }

  get figures(): Pick<ProgramFigures, 'bite' | 'air' | 'byPass'> {
    const byPass = this.parts.map((part, p) => ({ pass: this.program.passes[p], ...part.figures }));
    return { ...this.whole.figures, byPass: this.told ? byPass : [] };
  }
}
