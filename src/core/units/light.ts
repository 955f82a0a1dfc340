/** sRGB's transfer curve (IEC 61966-2-1): a coded value 0..1 as light, and back. */
export const toLight = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
export const fromLight = (v: number) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/** The gray of three amounts of light by the weights of Rec. 709, coded again. */
export const grayOfLight = (r: number, g: number, b: number) => fromLight(0.2126 * r + 0.7152 * g + 0.0722 * b);

/** The gray that is as bright as a colour: Rec. 709 weights on light, coded again, so that gray stays the gray it was. */
export function luminance(r: number, g: number, b: number): number {
  if (r === g && g === b) return r;
  return grayOfLight(toLight(r), toLight(g), toLight(b));
}
