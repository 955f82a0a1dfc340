import { writeFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import sharp from 'sharp';
import { shade } from '../core/arrange/picture';
import { outlineOf } from '../core/arrange/silhouette';
import { solidOf, thinSurface } from '../core/arrange/solid';
import { buildTarget } from '../core/arrange/target';
import type { Job } from '../core/doc/job';
import { WHOLE_PIECE } from '../core/doc/outline-ref';
import { type Grid, gridOf } from '../core/field/height-field';
import { writeDxf, writeSvg } from '../core/outline/write-outlines';
import { cellOf } from '../core/passes/cell';
import { composeJob } from '../core/plan/compose-job';
import { regionOf, resolveAreas } from '../core/plan/regions';
import { gridOfBoard } from '../core/setup/board-grid';
import { type SetupView, setupView } from '../core/setup/view';
import { fieldToPng } from '../core/sources/height-image';
import { writeStl } from '../core/sources/stl';
import { AssetStore } from '../server/assets';
import { contentLoader } from '../server/content';
import { StageCache, stageRunner } from '../server/stage-cache';

export const EXPORTS = [
  'heights-png',
  'heights-tiff',
  'stl',
  'picture',
  'small',
  'outline-svg',
  'outline-dxf',
] as const;
export type ExportKind = (typeof EXPORTS)[number];

export interface ExportOrder {
  job: Job;
  /** The setup whose layers are meant; null for the job's first. */
  setup: string | null;
  assets: string;
  cache: string;
  planner: string;
  kind: ExportKind;
  /** File that the result is written to. */
  out: string;
}
export type ExportNews = { low: number; high: number } | { error: string };

/** Most cells along a side of a model: two million triangles on top. */
const MODEL_CELLS = 1200;
const PICTURE_PIXELS = 1800;
const SMALL_PIXELS = 420;
/** Lines and arcs of outlines lie this near to their chords, mm: a little more than these lie off the curve itself. */
const OUTLINE_ARCS = 0.012;
/** Thinnest back of a model, mm. */
const BACK = 1;

type Made = Awaited<ReturnType<typeof composeJob>>;
interface Exporting {
  view: SetupView;
  grid: Grid;
  made: Made;
  range: { low: number; high: number };
  out: string;
}

/** A closed model: a raised piece stands alone on its backing; a sunk one is the whole board. */
function writeModel({ view, grid, made, range, out }: Exporting): void {
  const { board, seat } = view;
  const step = Math.max(1, Math.ceil(Math.max(grid.width, grid.height) / MODEL_CELLS));
  const s = thinSurface(grid, made.z, made.cover, step);
  const backing = board.thickness - seat.skin - (seat.mode === 'sunk' ? seat.drop : made.facts.peak);
  const back = Math.min(range.low - BACK, -backing);
  if (seat.mode === 'sunk') {
    // Around the piece the board's own top stands.
    for (let k = 0; k < s.z.length; k++) if (!s.cover[k]) s.z[k] = seat.drop + seat.skin;
    s.cover.fill(1);
  }
  const triangles = solidOf(s.grid, s.z, s.cover, back);
  if (triangles.length === 0) throw new Error('there is nothing on the board to make a model of; add a layer');
  writeFileSync(out, writeStl(triangles, view.name));
}

/** The outline of the whole piece, and those of layers that are made of outlines. */
async function writeOutlines({ view, grid, made, out }: Exporting, kind: 'outline-svg' | 'outline-dxf'): Promise<void> {
  const { seat, board } = view;
  const shown = await made.shown();
  const outlines = [{ name: 'piece', polygon: outlineOf({ ...WHOLE_PIECE, holes: true }, shown, grid, seat.mode) }];
  for (const s of shown) {
    const { kind: of } = s.layer.source;
    if (of === 'words' || of === 'shape')
      outlines.push({
        name: s.layer.name,
        polygon: outlineOf({ ...WHOLE_PIECE, of: [s.layer.id], holes: true }, [s], grid, seat.mode),
      });
  }
  writeFileSync(
    out,
    kind === 'outline-svg' ? writeSvg(outlines, board, OUTLINE_ARCS) : writeDxf(outlines, OUTLINE_ARCS),
  );
}

/** The target shaded, hatched where it is kept. */
async function writePicture({ view, grid, made, out }: Exporting): Promise<void> {
  const { seat } = view;
  const shown = await made.shown();
  const areas = await resolveAreas(view, (ref) => outlineOf(ref, shown, grid, seat.mode));
  const target = buildTarget({
    grid,
    z: made.z,
    cover: made.cover,
    mode: seat.mode,
    peak: made.facts.peak,
    low: made.facts.low,
    skin: seat.skin,
    drop: seat.drop,
    regions: areas.filter((a) => a !== null).map((a) => regionOf(a, grid)),
  });
  const { width, height, data } = shade({
    grid,
    heights: target.field.data,
    mask: target.mask,
    paper: [251, 248, 241],
    hatch: [226, 214, 190],
  });
  await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .png()
    .toFile(out);
}

/** Heights as 16-bit levels in a TIFF, the northernmost row first. */
async function writeTiff({ grid, made, range, out }: Exporting): Promise<void> {
  const scale = 65535 / (range.high - range.low);
  const levels = new Uint16Array(grid.width * grid.height);
  for (let j = 0; j < grid.height; j++) {
    const from = (grid.height - 1 - j) * grid.width;
    for (let i = 0; i < grid.width; i++) {
      const v = Math.round((made.z[from + i] - range.low) * scale);
      levels[j * grid.width + i] = Math.min(65535, Math.max(0, v));
    }
  }
  const dots = 1 / grid.cell;
  await sharp(levels, { raw: { width: grid.width, height: grid.height, channels: 1 } })
    .toColourspace('grey16')
    .tiff({ compression: 'deflate', predictor: 'horizontal', xres: dots, yres: dots })
    .toFile(out);
}

async function run(order: ExportOrder): Promise<{ low: number; high: number }> {
  const { kind, out } = order;
  const view = setupView(order.job, order.setup);
  const { board } = view;
  const drawn = kind === 'small' || kind === 'picture';
  const pixels = kind === 'small' ? SMALL_PIXELS : PICTURE_PIXELS;
  const grid = gridOfBoard(board, drawn ? Math.max(board.x, board.y) / pixels : cellOf(view).cell);
  const stage = stageRunner(drawn ? null : new StageCache(order.cache), order.planner, {});
  const made = await composeJob(
    view,
    grid,
    contentLoader((hash, file) => new AssetStore(order.assets).read(hash, file)),
    stage,
  );
  const { peak, low } = made.facts;
  const range = { low: Math.min(0, low), high: Math.max(peak, Math.min(0, low) + 1e-3) };
  const exporting: Exporting = { view, grid, made, range, out };
  if (kind === 'stl') writeModel(exporting);
  else if (kind === 'outline-svg' || kind === 'outline-dxf') await writeOutlines(exporting, kind);
  else if (drawn) await writePicture(exporting);
  else if (kind === 'heights-tiff') await writeTiff(exporting);
  else writeFileSync(out, fieldToPng({ ...gridOf(grid), data: made.z }, range.low, range.high));
  return range;
}

try {
  parentPort!.postMessage((await run(workerData as ExportOrder)) satisfies ExportNews);
} catch (e) {
  parentPort!.postMessage({ error: (e as Error).message } satisfies ExportNews);
}
