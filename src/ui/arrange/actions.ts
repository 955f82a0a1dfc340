import { duplicateLayer, mirroredCopy, newShape } from '@/core/arrange/new-layer';
import { backOnSheet, boundsOf, keepGaps, moveLayer } from '@/core/arrange/place';
import { isOf, type Layer, type LayerOf, type SourceName } from '@/core/doc/layer';
import { outlineOfPass } from '@/core/doc/pass';
import { joinBounds } from '@/core/outline/polygon';
import { fileLayer } from '@/core/plan/propose';
import type { SetupView } from '@/core/setup/view';
import type { Drawing } from '@/core/sources/drawing';
import type { SourceInfo } from '@/core/sources/inspect';
import { MM_PER_INCH } from '@/core/units/length';
import { clean } from '@/core/units/round';

/** New layers, all together half a turn round: put in while the board is shown so, they stand upright in that view. */
export function halfTurned(layers: Layer[]): Layer[] {
  if (layers.length === 0) return [];
  const { x0, y0, x1, y1 } = joinBounds(layers.map((l) => boundsOf(l)));
  return layers.map((l) => ({
    ...l,
    turn: (l.turn + 180) % 360,
    centre: { x: clean(x0 + x1 - l.centre.x), y: clean(y0 + y1 - l.centre.y) },
  }));
}

/** A new id for something in a document. A page that came over plain http has no random UUIDs, but has random numbers. */
export const newId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(4)), (b) => b.toString(16).padStart(2, '0')).join('');

/** The first name for a group that none has yet. */
export function freeGroup(layers: Layer[]): string {
  const taken = new Set(layers.map((l) => l.group));
  let n = 1;
  while (taken.has(`Group ${n}`)) n++;
  return `Group ${n}`;
}

/** Changes some layers, and lets what keeps a distance to them follow. */
export function editLayers(job: SetupView, ids: string[], edit: (l: Layer) => void): void {
  for (const l of job.layers) if (ids.includes(l.id)) edit(l);
  keepGaps(job, ids);
}

/** Changes what a layer of a kind is made of; one that has become something else since is left alone. */
export function editKind<K extends SourceName>(
  job: SetupView,
  id: string,
  kind: K,
  edit: (l: LayerOf<K>) => void,
): void {
  editLayers(job, [id], (l) => {
    if (isOf(l, kind)) edit(l);
  });
}

export function moveLayers(job: SetupView, ids: string[], dx: number, dy: number): void {
  const moved: Layer[] = [];
  editLayers(job, ids, (l) => {
    if (l.locked) return;
    moveLayer(l, dx, dy);
    moved.push(l);
  });
  if (!job.board.drum) return;
  backOnSheet(moved, job.board);
  keepGaps(job, ids);
}

export function removeLayers(job: SetupView, ids: string[]): void {
  job.layers = job.layers.filter((l) => !ids.includes(l.id));
  job.gaps = job.gaps.filter((g) => !ids.includes(g.of) && !ids.includes(g.from));
  for (const l of job.layers) if (l.mask.kind === 'layer' && ids.includes(l.mask.layer)) l.mask = { kind: 'none' };
  for (const p of job.passes) {
    const ref = outlineOfPass(p);
    if (!ref) continue;
    ref.less = ref.less.filter((id) => !ids.includes(id));
    const left = ref.of?.filter((id) => !ids.includes(id)) ?? [];
    // An outline of which nothing is left becomes the whole piece's.
    ref.of = left.length > 0 ? left : null;
  }
}

/** Puts copies right over their originals. @returns the new ids */
export function duplicateLayers(job: SetupView, ids: string[]): string[] {
  return copyLayers(job, ids, (l) => duplicateLayer(l, newId()));
}

export function mirrorLayers(job: SetupView, ids: string[], axis: 'x' | 'y'): string[] {
  return copyLayers(job, ids, (l) => mirroredCopy(l, newId(), axis, job.board));
}

function copyLayers(job: SetupView, ids: string[], make: (l: Layer) => Layer): string[] {
  const made = job.layers.filter((l) => ids.includes(l.id)).map(make);
  const last = Math.max(...ids.map((id) => job.layers.findIndex((l) => l.id === id)));
  job.layers.splice(last + 1, 0, ...made);
  return made.map((l) => l.id);
}

/** Moves layers one place up or down in the order. */
export function shiftLayers(job: SetupView, ids: string[], up: boolean): void {
  const order = up ? [...job.layers.keys()].reverse() : [...job.layers.keys()];
  for (const i of order) {
    const j = i + (up ? 1 : -1);
    if (!ids.includes(job.layers[i].id) || j < 0 || j >= job.layers.length || ids.includes(job.layers[j].id)) continue;
    [job.layers[i], job.layers[j]] = [job.layers[j], job.layers[i]];
  }
}

/** A drawing as shapes at a place or in the middle of the board, at its own size where that fits: its areas, and its lines of each width, as a group. */
export function placeDrawing(
  job: SetupView,
  file: string,
  { pieces, size }: Drawing,
  at: { x: number; y: number } | null = null,
): Layer[] {
  const { board } = job;
  const to = at ?? { x: board.x / 2, y: board.y / 2 };
  const k = Math.min(1, (board.x * 0.95) / size.x, (board.y * 0.95) / size.y);
  const name =
    file
      .replace(/\.[a-z0-9]+$/i, '')
      .slice(0, 80)
      .trim() || 'Drawing';
  const group = pieces.length > 1 ? newId() : null;
  return pieces.map(({ d, pen, size: own, middle }, i) => {
    const outline =
      pen === null ? ({ kind: 'path', d } as const) : ({ kind: 'strokes', d, width: clean(pen * k) } as const);
    const part = pieces.length > 1 ? `, ${pen === null ? 'areas' : `lines of ${clean(pen * k)} mm`}` : '';
    return {
      ...newShape({ id: newId(), name: `${name.slice(0, 60)}${part}` }, outline, { kind: 'flat' }, board),
      group,
      size: { x: clean(own.x * k), y: clean(own.y * k) },
      centre: { x: clean(to.x + middle.x * k), y: clean(to.y + middle.y * k) },
      ...(i > 0 ? { join: 'highest' as const } : {}),
    };
  });
}

/** A layer of a stored file at a place, in its true size when that fits the board, else as large as fits well. */
export function placeFile(
  job: SetupView,
  f: {
    file: string;
    hash: string;
    info: SourceInfo;
    name?: string;
    size?: { x: number; y: number } | null;
    rise?: number | null;
  },
  at: { x: number; y: number } | null,
): Layer {
  const layer = fileLayer(newId(), f.file, f.hash, f.info);
  if (f.name) layer.name = f.name.slice(0, 80);
  const { board } = job;
  const unit = f.info.kind === 'mesh' && f.info.unit === 'in' ? MM_PER_INCH : 1;
  let x = f.size?.x ?? (f.info.kind === 'image' ? board.x * 0.5 : f.info.size.x * unit);
  let y = f.size?.y ?? (x * f.info.size.y) / f.info.size.x;
  let rise = f.rise ?? (f.info.kind === 'image' ? 4 : f.info.size.z * unit);
  const k = Math.min(1, (board.x * 0.8) / x, (board.y * 0.8) / y);
  x *= k;
  y *= k;
  rise *= k;
  layer.size = { x: clean(x), y: clean(y) };
  layer.rise = clean(Math.max(0.2, Math.min(rise, board.thickness * 0.6)));
  layer.centre = at ? { x: clean(at.x), y: clean(at.y) } : { x: board.x / 2, y: board.y / 2 };
  // A recess in what lies beneath it: its rim leaves the ground as it is, its middle digs.
  if (f.info.recess && job.layers.length > 0) Object.assign(layer, { join: 'carve', invert: true });
  return layer;
}

/** The box around some layers, or null when there are none. */
export function boundsAround(job: SetupView, ids: string[]) {
  const some = job.layers.filter((l) => ids.includes(l.id));
  return some.length > 0 ? joinBounds(some.map(boundsOf)) : null;
}
