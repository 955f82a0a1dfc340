import { type HeightImage, isPng, parseHeightImage } from './height-image';
import { boxOf, guessUnit, type Orientation, orientMesh, proposeBase, proposeOrientation } from './orient';
import { type Mesh, parseStl } from './stl';

export interface Source {
  mesh?: Mesh;
  image?: HeightImage;
}

/** What a relief file holds and how it is proposed to be taken. */
export interface SourceInfo {
  kind: 'mesh' | 'image';
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
}

/** Reads a relief file by its content, whatever its name. @throws SourceError */
export function readSource(bytes: Uint8Array, file: string): Source {
  return isPng(bytes) ? { image: parseHeightImage(bytes, file) } : { mesh: parseStl(bytes, file) };
}

export function inspectSource(source: Source): SourceInfo {
  if (source.image) {
    const { width, height, depth } = source.image;
    return {
      kind: 'image',
      unit: 'mm',
      turns: [0, 0, 0],
      mirror: false,
      base: 0,
      flatBack: true,
      size: { x: width, y: height, z: 1 },
      triangles: 0,
      pixels: { width, height, depth },
    };
  }
  const mesh = source.mesh as Mesh;
  const orientation = proposeOrientation(mesh);
  return describeMesh(mesh, orientation);
}

/** The same for a mesh in a given orientation: its base is proposed anew. */
export function describeMesh(mesh: Mesh, orientation: Orientation): SourceInfo {
  const turned = orientMesh(mesh, orientation);
  const { min, max } = boxOf(turned);
  const base = proposeBase(turned);
  const thickness = max[2] - min[2];
  return {
    kind: 'mesh',
    unit: guessUnit(boxOf(turned)),
    turns: orientation.turns,
    mirror: orientation.mirror,
    base: thickness > 0 ? Math.min(0.99, (base.z - min[2]) / thickness) : 0,
    flatBack: base.flatBack,
    size: { x: max[0] - min[0], y: max[1] - min[1], z: max[2] - base.z },
    triangles: mesh.triangles.length / 9,
    pixels: null,
  };
}
