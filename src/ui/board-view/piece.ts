import { MASK } from '@/core/arrange/target';

/** A board on a grid of so many cells. */
interface Cut {
  width: number;
  height: number;
  /** Heights of its top and of its underside, mm from its top; the board's own underside where that is null. */
  top: Float32Array;
  under: Float32Array | null;
  mask: Uint8Array;
  thickness: number;
}

/** Wood thinner than this does not join what lies on both sides of it, mm. */
const THIN = 0.02;

/**
 * The pieces that a board is cut into, without their frame and without what may remain of waste: 1 for each of their cells. What is open, or waste, as
 * a slot with its tabs is, parts them; what reaches the board's edge is their frame. Where nothing is cut out it is the whole board less its waste.
 */
export function pieceOf({ width, height, top, under, mask, thickness }: Cut): Uint8Array {
  const n = width * height;
  const wood = new Uint8Array(n);
  for (let k = 0; k < n; k++) {
    const low = under ? Math.max(-thickness, under[k]) : -thickness;
    if (mask[k] !== MASK.waste && Math.max(top[k], -thickness) - low > THIN) wood[k] = 1;
  }
  const frame = new Uint8Array(n);
  const next: number[] = [];
  const reach = (k: number) => {
    if (wood[k] === 0 || frame[k] === 1) return;
    frame[k] = 1;
    next.push(k);
  };
  for (let i = 0; i < width; i++) {
    reach(i);
    reach(n - 1 - i);
  }
  for (let j = 0; j < height; j++) {
    reach(j * width);
    reach(j * width + width - 1);
  }
  for (let k = next.pop(); k !== undefined; k = next.pop()) {
    const i = k % width;
    if (i > 0) reach(k - 1);
    if (i + 1 < width) reach(k + 1);
    if (k >= width) reach(k - width);
    if (k + width < n) reach(k + width);
  }
  const inner = wood.map((w, k) => (w === 1 && frame[k] === 0 ? 1 : 0));
  return inner.some((v) => v === 1) ? inner : wood;
}
