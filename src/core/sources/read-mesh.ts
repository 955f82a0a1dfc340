import type { Source } from './inspect';
import { looksLikeObj, parseObj } from './obj';
import { looksLikePly, parsePly } from './ply';
import { parseStl } from './stl';
import { looksLikeZip, parse3mf } from './three-mf';

/** Reads a mesh file by its content, whatever its name: STL, OBJ, PLY or 3MF. @throws SourceError */
export function readMesh(bytes: Uint8Array, file: string): Source {
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
