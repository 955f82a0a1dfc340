import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import type { Mesh } from './mesh';
import { MAX_TRIANGLES, SourceError } from './source-error';

export function looksLikePly(bytes: Uint8Array): boolean {
  return bytes.length > 4 && bytes[0] === 0x70 && bytes[1] === 0x6c && bytes[2] === 0x79 && bytes[3] < 32;
}

/** Reads a PLY model, text or binary. @throws SourceError */
export function parsePly(bytes: Uint8Array, file: string): Mesh {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 65_536));
  const faces = Number(/^element face (\d+)/m.exec(head)?.[1] ?? 0);
  if (!/^end_header/m.test(head))
    throw new SourceError(`${file}: its PLY header has no end; the file is cut short, fetch it again`);
  if (faces === 0) throw new SourceError(`${file}: holds points but no faces; export it as a mesh`);
  if (faces > MAX_TRIANGLES)
    throw new SourceError(`${file}: holds ${faces} faces, more than ${MAX_TRIANGLES}; reduce the mesh`);
  let position: ArrayLike<number>;
  let index: ArrayLike<number> | undefined;
  try {
    const whole = bytes.byteOffset === 0 && bytes.byteLength === bytes.buffer.byteLength;
    const geometry = new PLYLoader().parse((whole ? bytes.buffer : bytes.slice().buffer) as ArrayBuffer);
    position = geometry.getAttribute('position').array;
    index = geometry.index?.array;
  } catch {
    throw new SourceError(`${file}: begins like a PLY model but is damaged or cut short; export it again`);
  }
  if (!index) throw new SourceError(`${file}: holds points but no faces; export it as a mesh`);
  if (index.length / 3 > MAX_TRIANGLES)
    throw new SourceError(`${file}: holds more than ${MAX_TRIANGLES} triangles; reduce the mesh`);
  const out = new Float32Array(index.length * 3);
  for (let i = 0; i < index.length; i++) {
    for (let a = 0; a < 3; a++) out[3 * i + a] = position[3 * index[i] + a];
  }
  for (let i = 0; i < out.length; i++) {
    if (!Number.isFinite(out[i]))
      throw new SourceError(
        `${file}: triangle ${Math.floor(i / 9) + 1} has a corner at ${out[i]}; repair the mesh and export it again`,
      );
  }
  return { triangles: out };
}
