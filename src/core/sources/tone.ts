import type { Tone } from '../doc/tone';
import { removeNoise, smoothKeepingEdges } from './filters';
import type { HeightImage } from './height-image';
import { smoothTerraces } from './terraces';

/** Stands for background in a toned image. */
export const BACKGROUND = -1;

/** Which pixels are background (1): by threshold, then by the brush, later strokes over earlier ones. */
function backgroundOf(image: HeightImage, { threshold, light, strokes }: Tone['cutout']): Uint8Array | null {
  if (threshold === null && strokes.length === 0) return null;
  const { width, height, values } = image;
  const out = new Uint8Array(values.length);
  if (threshold !== null) {
    for (let k = 0; k < out.length; k++) if (light ? values[k] >= threshold : values[k] <= threshold) out[k] = 1;
  }
  for (const s of strokes) {
    const r = s.radius * width;
    for (let i = 0; i < s.points.length; i++) {
      const [ax, ay] = [s.points[Math.max(0, i - 1)][0] * width, s.points[Math.max(0, i - 1)][1] * height];
      const [bx, by] = [s.points[i][0] * width, s.points[i][1] * height];
      const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
      const y1 = Math.min(height - 1, Math.ceil(Math.max(ay, by) + r));
      const x1 = Math.min(width - 1, Math.ceil(Math.max(ax, bx) + r));
      for (let y = Math.max(0, Math.floor(Math.min(ay, by) - r)); y <= y1; y++) {
        for (let x = Math.max(0, Math.floor(Math.min(ax, bx) - r)); x <= x1; x++) {
          const [px, py] = [x + 0.5 - ax, y + 0.5 - ay];
          const t = l2 > 0 ? Math.max(0, Math.min(1, (px * (bx - ax) + py * (by - ay)) / l2)) : 0;
          if ((px - t * (bx - ax)) ** 2 + (py - t * (by - ay)) ** 2 <= r * r) out[y * width + x] = s.keep ? 0 : 1;
        }
      }
    }
  }
  return out;
}

/** The image's tones as heights 0..1; BACKGROUND where it is cut out. The input is left as it is. */
export function toneImage(image: HeightImage, tone: Tone): HeightImage {
  let values = image.values;
  if (tone.noise > 0) values = removeNoise(values, image.width, image.height, tone.noise);
  if (tone.terraces) values = smoothTerraces(values, image.width, image.height);
  if (tone.smooth > 0) values = smoothKeepingEdges(values, image.width, image.height, tone.smooth, tone.smoothBelow);
  const background = backgroundOf(image, tone.cutout);
  const { black, white, gamma, invert } = tone;
  const plain = black === 0 && white === 1 && gamma === 1 && !invert;
  if (plain && !background) return values === image.values ? image : { ...image, values };
  const out = new Float32Array(values.length);
  for (let k = 0; k < out.length; k++) {
    if (background?.[k]) {
      out[k] = BACKGROUND;
      continue;
    }
    let v = Math.min(1, Math.max(0, (values[k] - black) / (white - black)));
    if (gamma !== 1) v **= 1 / gamma;
    out[k] = invert ? 1 - v : v;
  }
  return { ...image, values: out };
}
