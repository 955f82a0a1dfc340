import { KERNELS_BASE64 } from './generated';

interface Exports {
  memory: WebAssembly.Memory;
  heapBase(): number;
  blockMax8(src: number, count: number, dst: number): void;
  offsetBand(...args: number[]): void;
  rowMaxima(src: number, stride: number, levels: number, dst: number): void;
  flatBand(...args: number[]): void;
  slideRows(blocks: number, nb: number, count: number, s3: number, s6: number): void;
  offsetLines(...args: number[]): void;
  sweep(...args: number[]): void;
  drumBand(...args: number[]): void;
  drumFlatBand(...args: number[]): void;
  drumSweep(...args: number[]): void;
}

let instance: Exports | undefined;

function decode(text: string): Uint8Array<ArrayBuffer> {
  const raw = atob(text);
  const bytes = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; i++) bytes[i] = raw.charCodeAt(i);
  return bytes;
}

/** The compiled kernels, one instance a thread. */
export function kernels(): Exports {
  if (!instance) {
    const module = new WebAssembly.Module(decode(KERNELS_BASE64));
    instance = new WebAssembly.Instance(module, {
      env: {
        abort() {
          throw new Error('a kernel aborted');
        },
      },
    }).exports as unknown as Exports;
  }
  return instance;
}

/**
 * Lays out consecutive 16-byte aligned blocks in the kernels' memory and grows it to fit.
 * @param sizes block sizes in bytes
 * @returns the address of each block
 */
export function layOut(sizes: number[]): number[] {
  const k = kernels();
  let at = (k.heapBase() + 63) & ~63;
  const out = sizes.map((size) => {
    const here = at;
    at = (at + size + 63) & ~63;
    return here;
  });
  const need = at + 256 - k.memory.buffer.byteLength;
  if (need > 0) k.memory.grow(Math.ceil(need / 65536));
  return out;
}
