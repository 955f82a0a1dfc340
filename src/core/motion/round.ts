import type { Machine, Rotary } from '../doc/machine';
import { unrolled } from '../field/drum';
import { type MotionTime, motionTime } from './time';

/** Moves shorter than this take no time, mm. */
const NOTHING = 1e-9;

/** A way round as it is turned: as it is, or by the shorter way round a drum of a radius, mm. */
const turned = (y: number, radius: number | null): number =>
  radius === null ? y : y - unrolled(radius) * Math.round(y / unrolled(radius));

/**
 * Moves around a drum with their true lengths: y goes on by the way round at the radius halfway between a move's ends, so that the look-ahead model
 * sees the speeds that the tip has over the wood. What has no length is left out. Over everything an axis that turns on and on takes the shorter way.
 */
function trueWay(
  data: Float64Array,
  { radius, endless, maxSpeed }: { radius: number } & Pick<Rotary, 'endless' | 'maxSpeed'>,
  kinds?: Uint8Array,
): { way: Float64Array; kinds?: Uint8Array } {
  const way = data.slice();
  const own = kinds?.slice();
  let n = Math.min(4, data.length);
  for (let k = 4; k < data.length; k += 4) {
    const middle = Math.max(0, radius + (data[k + 2] + data[k - 2]) / 2);
    const over = endless && data[k + 3] === 0 && data[k + 2] === data[2] && data[k - 2] === data[2];
    const y = way[n - 3] + (turned(data[k + 1] - data[k - 3], over ? radius : null) * middle) / radius;
    const long = Math.hypot(data[k] - way[n - 4], y - way[n - 3], data[k + 2] - way[n - 2]);
    if (long < NOTHING) continue;
    // No faster than the axis turns.
    const degrees = (Math.abs(data[k + 1] - data[k - 3]) / radius) * (180 / Math.PI);
    const feed = degrees > 0 ? Math.min(data[k + 3], (long * maxSpeed) / degrees) : data[k + 3];
    way.set([data[k], y, data[k + 2], feed], n);
    if (own && kinds) own[n / 4] = kinds[k / 4];
    n += 4;
  }
  return { way: way.subarray(0, n), kinds: own?.subarray(0, n / 4) };
}

/**
 * Time of a path around a drum by the look-ahead model, no move faster than the axis turns. The axis's acceleration is that of a tip on the drum's
 * circle: deeper in, where the same turning moves the tip more slowly, it is too generous, and the time a lower bound.
 */
export function timeRound(
  data: Float64Array,
  {
    maxFeed,
    acceleration,
    junctionDeviation,
    rotary,
  }: Pick<Machine, 'maxFeed' | 'acceleration' | 'junctionDeviation' | 'rotary'>,
  radius: number,
  kinds?: Uint8Array,
): MotionTime {
  const along = rotary?.along ?? 'x';
  const round = ((rotary?.maxSpeed ?? 360) * Math.PI * radius) / 180;
  const gains = ((rotary?.acceleration ?? 360) * Math.PI * radius) / 180;
  const limits = {
    maxFeed: { x: maxFeed[along], y: round, z: maxFeed.z },
    acceleration: { x: acceleration[along], y: gains, z: acceleration.z },
    junctionDeviation,
  };
  const own = trueWay(data, { radius, endless: rotary?.endless ?? true, maxSpeed: rotary?.maxSpeed ?? 360 }, kinds);
  return motionTime(own.way, limits, own.kinds);
}
