import { writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { shade } from '../core/arrange/picture';
import type { Board } from '../core/doc/board';
import type { Job } from '../core/doc/job';
import type { Grid } from '../core/field/height-field';
import type { KernelHost } from '../core/kernels/host';
import type { PlanSummary } from '../core/plan/summary';
import { type Beside, type SetupToStudy, type StudyCase, studyBeside } from '../core/proof/study';
import { viewOf } from '../core/setup/view';
import { formatLength, trimNumber } from '../core/units/length';

/** How far boards are studied beside their place: mm and degrees. */
export interface HowFar {
  shift: number;
  turn: number;
}

const inWords = ({ x, y, turn }: Beside): string =>
  x === 0 && y === 0 && turn === 0
    ? 'in its place'
    : [
        ...(x !== 0 || y !== 0 ? [`moved ${trimNumber(x, 3)}, ${formatLength(y, 'mm', 3)}`] : []),
        ...(turn !== 0 ? [`turned ${trimNumber(turn, 3)} degrees`] : []),
      ].join(' and ');

/** A web map as a PNG. */
async function webPicture({ solid }: StudyCase, board: Board): Promise<Buffer> {
  const { top, bottom } = solid;
  const grid: Grid = solid.grid;
  const web = { wood: top.map((v, k) => v - bottom[k]), least: board.web, thickness: board.thickness };
  const { width, height, data } = shade({
    grid,
    heights: top,
    mask: new Uint8Array(top.length),
    web,
    paper: [255, 255, 255],
    hatch: [0, 0, 0],
  });
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
    if (new Set(board.setups.map((s) => s.up)).size < 2) continue;
    const setups = board.setups.map((setup): SetupToStudy => {
      const own = programs.filter((p) => p.setup === setup.id && !p.reserve);
      return {
        view: viewOf(job, { board, setup }),
        programs: own.map(({ file, text, cutter }) => ({ file, text, tool: cutter })),
      };
    });
    const cases = await studyBeside(board, setups, far, host);
    for (const [n, c] of cases.entries()) {
      const picture = `web-${board.id}-${n}.png`;
      writeFileSync(path.join(out, picture), await webPicture(c, board));
      const { solid, ...figures } = c;
      all.push({ board: board.id, ...figures, picture, cell: solid.grid.cell });
      console.log(
        `${board.name} ${inWords(c.beside)}: web ${formatLength(c.web)}, ${trimNumber(c.thin, 1)} mm2 thinner than ${formatLength(board.web)}, ${trimNumber(c.open, 1)} mm2 open, ${trimNumber(c.gone / 1000, 2)} cm3 gone that should stand`,
      );
    }
  }
  if (all.length === 0) console.log('no board of this job is cut from both sides: nothing is studied');
  else writeFileSync(path.join(out, 'study.json'), `${JSON.stringify({ ...far, cases: all }, null, 2)}\n`);
}
