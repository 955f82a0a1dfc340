import { writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import type { Board } from '../core/doc/board';
import type { Job } from '../core/doc/job';
import type { KernelHost } from '../core/kernels/host';
import type { PlanSummary } from '../core/plan/summary';
import { besideInWords, type StudyCase, setupsToStudy, studyBeside, webPicture } from '../core/proof/study';
import { formatLength, trimNumber } from '../core/units/length';

/** How far boards are studied beside their place: mm and degrees. */
export interface HowFar {
  shift: number;
  turn: number;
}

/** A web map as a PNG. */
function pngOf(c: StudyCase, board: Board): Promise<Buffer> {
  const { width, height, data } = webPicture(c, board);
  return sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
}

/**
 * Cuts each board of a job that is cut from both sides as it comes out when it lies beside its place after it is turned over, nine ways; writes the
 * figures (study.json) and a web map of each way, and tells them.
 */
export async function writeStudy(
  job: Job,
  { programs }: Pick<PlanSummary, 'programs'>,
  out: string,
  far: HowFar,
  host: KernelHost,
): Promise<void> {
  const all: unknown[] = [];
  for (const board of job.boards) {
    const setups = setupsToStudy(job, board, programs);
    if (setups.length === 0) continue;
    const cases = await studyBeside(board, setups, far, host);
    for (const [n, c] of cases.entries()) {
      const picture = `web-${board.id}-${n}.png`;
      writeFileSync(path.join(out, picture), await pngOf(c, board));
      const { solid, ...figures } = c;
      all.push({ board: board.id, ...figures, picture, cell: solid.grid.cell });
      console.log(
        `${board.name} ${besideInWords(c.beside, (mm) => formatLength(mm, 'mm', 3))}: web ${formatLength(c.web)}, ${trimNumber(c.thin, 1)} mm2 thinner than ${formatLength(board.web)}, ${trimNumber(c.open, 1)} mm2 open, ${trimNumber(c.gone / 1000, 2)} cm3 gone that should stand`,
      );
    }
  }
  if (all.length === 0) console.log('no board of this job is cut from both sides: nothing is studied');
  else writeFileSync(path.join(out, 'study.json'), `${JSON.stringify({ ...far, cases: all }, null, 2)}\n`);
}
