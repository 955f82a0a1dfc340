import { readFileSync } from 'node:fs';
import type { Phase } from '../core/plan/phases';
import { z } from '../core/units/zod';
import { moveFile, writeParts } from './files';

/** Seconds that each kind of phase took on a million cells, the newest last. */
const timesSchema = z.record(z.string(), z.array(z.number().positive()).max(100));
type Times = z.infer<typeof timesSchema>;

/** Times of each kind that are kept: of so many the middle one counts. */
const KEPT = 7;
/** A phase that took less than this share of what it usually takes had its result from an earlier plan, and says nothing. */
const TAKEN = 0.2;

/**
 * What a machine with two cores takes, seconds a million cells, until this one's own times are known (measured on the sample shop's jobs).
 */
const USUAL: Record<string, number> = {
  layers: 1.8,
  roughing: 0.6,
  'clearing flats': 1.5,
  finishing: 2.8,
  letters: 0.7,
  'cut-out': 0.4,
  'cut-off': 0.4,
  holes: 0.1,
  proof: 1.3,
};
/** Of phases that nothing is known of, seconds a million cells. */
const ELSE = 0.8;

const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];

/** How long planning takes on this machine, learnt from what it took: kept in one file, which may be lost. */
export class StageTimes {
  private times: Times;

  constructor(private readonly file: string) {
    this.times = read(file);
  }

  /** What a phase is expected to take here, s. */
  expected({ kind, cells }: Phase): number {
    const known = this.times[kind];
    return ((known ? middle(known) : (USUAL[kind] ?? ELSE)) * cells) / 1e6;
  }

  /** What all of a job's phases are expected to take here, s. */
  expectedOf(phases: Phase[]): number {
    return phases.reduce((s, p) => s + this.expected(p), 0);
  }

  /** Learns from a plan that was done: seconds that each phase took, by its name. */
  learn(phases: Phase[], took: ReadonlyMap<string, number>): void {
    for (const [name, seconds] of took) {
      const same = phases.filter((p) => p.name === name);
      const cells = same.reduce((s, p) => s + p.cells, 0);
      const usual = this.expectedOf(same);
      if (cells === 0 || seconds < TAKEN * usual) continue;
      const list = this.times[same[0].kind] ?? [];
      this.times[same[0].kind] = [...list, (1e6 * seconds) / cells].slice(-KEPT);
    }
    try {
      writeParts(`${this.file}.new`, [new TextEncoder().encode(JSON.stringify(this.times))]);
      moveFile(`${this.file}.new`, this.file);
    } catch {
      // A full disk costs what was learnt, and nothing else.
    }
  }
}

function read(file: string): Times {
  try {
    const found = timesSchema.safeParse(JSON.parse(readFileSync(file, 'utf8')));
    return found.success ? found.data : {};
  } catch {
    return {};
  }
}
