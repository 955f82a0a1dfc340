import type { Source } from './inspect';
import type { Mesh } from './mesh';
import { looksLikeObj, parseObj } from './obj';
import { looksLikePly, parsePly } from './ply';
import { SourceError } from './source-error';
import { parseStl } from './stl';
import { looksLikeZip, parse3mf } from './three-mf';

/** Thinner than this share of its longest side, a model has no thickness to speak of. */
const FLAT = 1e-6;

/** @throws SourceError for a model all of whose points lie in one plane across an axis */
function refuseFlat({ triangles }: Mesh, file: string): void {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < triangles.length; i += 3)
    for (let a = 0; a < 3; a++) {
      low[a] = Math.min(low[a], triangles[i + a]);
      high[a] = Math.max(high[a], triangles[i + a]);
    }
  const sides = high.map((h, a) => h - low[a]);
  if (Math.min(...sides) <= FLAT * Math.max(...sides))
    throw new SourceError(
      `${file}: all of it lies in one plane, so there is no thickness to carve; choose a model with a relief`,
    );
}

/** Reads a mesh file by its content, whatever its name: STL, OBJ, PLY or 3MF. @throws SourceError */
export function readMesh(bytes: Uint8Array, file: string): Source {
  const source = meshOf(bytes, file);
  if (source.mesh) refuseFlat(source.mesh, file);
  return source;
}

function meshOf(bytes: Uint8Array, file: string): Source {
  if (looksLikeZip(bytes)) return { mesh: parse3mf(bytes, file), unit: 'mm', notes: [] };
  if (looksLikePly(bytes)) return { mesh: parsePly(bytes, file), notes: [] };
  if (looksLikeObj(bytes)) {
    const { mesh, materials } = parseObj(bytes, file);
    const notes =
      materials.length > 0
        ? [`names its materials in ${materials.join(', ').slice(0, 80)}, which a carving does not need`]
        : [];
    return { mesh, notes };
  }
  return { mesh: parseStl(bytes, file), notes: [] };
}
