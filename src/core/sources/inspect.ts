import type { Drawing } from './drawing';
import { healthNotes, meshHealth } from './health';
import type { HeightImage } from './height-image';
import type { Font } from './lettering';
import type { Mesh } from './mesh';
import { axesOf, boxOf, guessUnit, type Orientation, proposeBase, proposeOrientation } from './orient';
import { rasterise } from './rasterise';
import { findTerraces } from './terraces';

/** What a file holds: one of mesh, image, font and drawing. */
export interface Source {
  mesh?: Mesh;
  image?: HeightImage;
  font?: Font;
  drawing?: Drawing;
  /** The unit, when the file itself says it. */
  unit?: 'mm';
  /** What was noticed while it was read, a sentence each. */
  notes: string[];
}

/** What a file holds and how it is proposed to be taken. */
export interface SourceInfo {
  kind: 'mesh' | 'image' | 'font' | 'drawing';
  unit: 'mm' | 'in';
  turns: Orientation['turns'];
  mirror: boolean;
  /** Base plane as a share of the turned thickness. */
  base: number;
  flatBack: boolean;
  /** Extents as proposed, in the file's unit (pixels for an image); z is the thickness above the base. */
  size: { x: number; y: number; z: number };
  triangles: number;
  pixels: { width: number; height: number; depth: number } | null;
  /** Steps of an image of few levels. */
  terraces: { levels: number; step: number } | null;
  /** Whether its rim stands high and its middle lies low, as in a model of a recess. */
  recess: boolean;
  /** Lines of a drawing, mm; null for others. */
  drawing: Drawing | null;
  notes: string[];
}

const NOTHING = {
  unit: 'mm' as const,
  turns: [0, 0, 0] as Orientation['turns'],
  mirror: false,
  base: 0,
  flatBack: true,
  triangles: 0,
  pixels: null,
  terraces: null,
  recess: false,
  drawing: null,
};

/** Grays of a picture above this are of the relief: black is ground. */
export const BLACK = 1e-6;

/** Whether heights 0..1 on a picture stand high all along its edge and mostly low inside; below `least` there is nothing. */
export function isRecess(h: ArrayLike<number>, width: number, height: number, least: number): boolean {
  if (width < 8 || height < 8) return false;
  const edge: number[] = [];
  let inner = 0;
  let low = 0;
  const here = (i: number, j: number) => h[j * width + i] >= least;
  const rim = Math.max(1, Math.round(Math.min(width, height) * 0.02));
  const step = Math.max(1, Math.floor(Math.max(width, height) / 400));
  for (let j = 0; j < height; j += step) {
    for (let i = 0; i < width; i += step) {
      if (!here(i, j)) continue;
      const out = (a: number, b: number) => a < 0 || b < 0 || a >= width || b >= height || !here(a, b);
      if (out(i - rim, j) || out(i + rim, j) || out(i, j - rim) || out(i, j + rim)) edge.push(h[j * width + i]);
      else {
        inner++;
        if (h[j * width + i] < 0.7) low++;
      }
    }
  }
  if (edge.length < 20 || inner < 20) return false;
  edge.sort((a, b) => a - b);
  return edge[Math.floor(edge.length * 0.1)] > 0.8 && low > 0.25 * inner;
}

export function inspectSource(source: Source): SourceInfo {
  if (source.font) return { ...NOTHING, kind: 'font', size: { x: 1, y: 1, z: 1 }, notes: source.notes };
  if (source.drawing) {
    const { size } = source.drawing;
    return { ...NOTHING, kind: 'drawing', drawing: source.drawing, size: { ...size, z: 1 }, notes: source.notes };
  }
  if (source.image) {
    const { width, height, depth, values } = source.image;
    return {
      ...NOTHING,
      kind: 'image',
      size: { x: width, y: height, z: 1 },
      pixels: { width, height, depth },
      terraces: findTerraces(values, width),
      recess: isRecess(values, width, height, BLACK),
      notes: source.notes,
    };
  }
  const mesh = source.mesh as Mesh;
  const info = describeMesh(mesh, proposeOrientation(mesh));
  return {
    ...info,
    unit: source.unit ?? info.unit,
    notes: [...source.notes, ...healthNotes(meshHealth(mesh))],
  };
}

const LOOK = 120;

/** The same for a mesh in a given orientation: its base is proposed anew. */
export function describeMesh(mesh: Mesh, orientation: Orientation): SourceInfo {
  const axes = axesOf(orientation);
  const box = boxOf(mesh, axes);
  const { min, max } = box;
  const base = proposeBase(mesh, axes);
  const thickness = max[2] - min[2];
  const above = max[2] - base.z;
  const k = LOOK / Math.max(max[0] - min[0], max[1] - min[1], 1e-9);
  const row = (a: number, scale: number, off: number) => {
    const r: [number, number, number, number] = [0, 0, 0, off];
    r[axes.from[a]] = axes.sign[a] * scale;
    return r;
  };
  const [width, height] = [Math.ceil((max[0] - min[0]) * k), Math.ceil((max[1] - min[1]) * k)];
  const small = rasterise(
    mesh,
    {
      x: row(0, k, -min[0] * k),
      y: row(1, k, -min[1] * k),
      z: row(2, 1 / Math.max(above, 1e-9), -base.z / Math.max(above, 1e-9)),
    },
    { width: Math.max(1, width), height: Math.max(1, height), cell: 1, originX: 0.5, originY: 0.5 },
  );
  return {
    ...NOTHING,
    kind: 'mesh',
    unit: guessUnit(box),
    turns: orientation.turns,
    mirror: orientation.mirror,
    base: thickness > 0 ? Math.min(0.99, (base.z - min[2]) / thickness) : 0,
    flatBack: base.flatBack,
    size: { x: max[0] - min[0], y: max[1] - min[1], z: above },
    triangles: mesh.triangles.length / 9,
    recess: isRecess(small.field.data, Math.max(1, width), Math.max(1, height), 0),
    notes: [],
  };
}
