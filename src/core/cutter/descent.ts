import { type Profile, profileHeight } from './cutter';
import { SOLID } from './limits';

/** Rings that a bit is parted into where it is reckoned what it takes. */
const RINGS = 64;

/** What a bit takes that has gone h mm deep into solid wood, mm3. */
function solidVolume(profile: Profile, h: number): number {
  const step = profile.R / RINGS;
  let sum = 0;
  for (let n = 0; n < RINGS; n++) {
    const r = (n + 0.5) * step;
    sum += 2 * Math.PI * r * step * Math.max(0, h - profileHeight(profile, r));
  }
  return sum;
}

/** A straight descent: how far it goes down, how high the wood over it stood, mm, and what it took, mm3. */
export interface Descent {
  drop: number;
  bite: number;
  volume: number;
}

/**
 * How deep a straight descent goes into wood, mm: all of it where it takes a quarter of what it would of solid wood, else as deep as that would
 * lie level. A hair of a wall all around is no plunge. Common practice, no source.
 */
export function straightDepth(profile: Profile, { drop, bite, volume }: Descent): number {
  const most = Math.min(drop, bite);
  const whole = solidVolume(profile, bite) - solidVolume(profile, bite - most);
  if (volume > SOLID * whole) return most;
  let [low, high] = [0, most];
  for (let n = 0; n < 20; n++) {
    const h = (low + high) / 2;
    if (solidVolume(profile, h) < volume) low = h;
    else high = h;
  }
  return high;
}
