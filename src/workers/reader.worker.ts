import { parentPort, workerData } from 'node:worker_threads';
import sharp from 'sharp';
import { rasterOf } from '../core/arrange/kinds/mesh/piece';
import type { StageResult } from '../core/plan/stage';
import { describeMesh, inspectSource, type SourceInfo } from '../core/sources/inspect';
import type { Orientation } from '../core/sources/orient';
import { SourceError } from '../core/sources/source-error';
import { assetPicture } from '../server/asset-picture';
import { readSource } from '../server/read-source';
import { readStored } from '../server/stored';

/** What is asked of a file on disk; `file` is the name that the person knows it by. */
export type ReadOrder = { path: string; file: string } & (
  | { ask: 'inspect' }
  | { ask: 'describe'; orientation: Orientation }
  | { ask: 'pixels' }
  | { ask: 'raster'; orientation: Orientation; base: number; cells: number }
  | { ask: 'picture'; info: SourceInfo }
);
export type ReadNews = { info: SourceInfo } | { view: StageResult } | { refused: string };

async function run(order: ReadOrder): Promise<{ news: ReadNews; transfer: ArrayBufferLike[] }> {
  const { file } = order;
  const source = await readSource(readStored(order.path, file), file);
  const view = (v: StageResult) => ({
    news: { view: v },
    transfer: Object.values(v.arrays).map((a) => a.buffer),
  });
  const mesh = () => {
    if (!source.mesh) throw new SourceError(`${file}: is not a mesh; choose a model`);
    return source.mesh;
  };
  switch (order.ask) {
    case 'inspect':
      return { news: { info: inspectSource(source) }, transfer: [] };
    case 'describe':
      return { news: { info: describeMesh(mesh(), order.orientation) }, transfer: [] };
    case 'pixels': {
      if (!source.image) throw new SourceError(`${file}: is not an image; choose a picture`);
      const { values, ...meta } = source.image;
      return view({ meta, arrays: { values } });
    }
    case 'raster': {
      const { turns, mirror: flip } = order.orientation;
      const from = { kind: 'mesh', file, hash: '', unit: 'mm', turns, flip, base: order.base } as const;
      const { data, ...meta } = rasterOf(mesh(), from, order.cells);
      return view({ meta, arrays: { data } });
    }
    case 'picture': {
      const { width, height, data } = assetPicture(source, order.info);
      const png = await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
        .png()
        .toBuffer();
      return view({ meta: {}, arrays: { png: Uint8Array.from(png) } });
    }
  }
}

try {
  const { news, transfer } = await run(workerData as ReadOrder);
  parentPort!.postMessage(news, transfer as ArrayBuffer[]);
} catch (e) {
  if (!(e instanceof SourceError)) throw e;
  parentPort!.postMessage({ refused: e.message } satisfies ReadNews);
}
