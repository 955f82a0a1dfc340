import type { Machine } from '../doc/machine';
import { MOVES, type MoveKind } from './path';

export interface MotionTime {
  /** Seconds by the look-ahead model. */
  seconds: number;
  /** Seconds as length over feed, rapids at the machine's highest feeds. */
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  cutSeconds: number;
  rapidSeconds: number;
  /** Seconds by what the moves are, where that is known. */
  spent: Partial<Record<MoveKind, number>>;
}

/** Seconds of a pass spent on cutting, on going into the wood, and on the way between cuts. */
export function spentOn({ spent }: Pick<MotionTime, 'spent'>): { cutting: number; entering: number; between: number } {
  const sum = (...kinds: MoveKind[]) => kinds.reduce((s, k) => s + (spent[k] ?? 0), 0);
  return {
    cutting: sum('cut', 'tabs'),
    entering: sum('plunge', 'ramp', 'helix'),
    between: sum('approach', 'link', 'retract'),
  };
}

/**
 * Time of a path by the usual look-ahead model: every move is a straight block with a speed limited by its feed and by
 * each axis, an acceleration limited by each axis, and at the joint of two blocks a speed limited by junction
 * deviation: v^2 = a d s / (1 - s), s the sine of half the angle between them. A backward and a forward pass make
 * every block's ends reachable; each block then takes a trapezoid's time. Rapids are blocks at the highest feeds.
 * @param data moves as Path holds them
 * @param kinds what each of them is, as Path tells it
 */
export function motionTime(
  data: Float64Array,
  m: Pick<Machine, 'maxFeed' | 'acceleration' | 'junctionDeviation'>,
  kinds?: Uint8Array,
): MotionTime {
  const n = data.length / 4 - 1;
  const out: MotionTime = {
    seconds: 0,
    naiveSeconds: 0,
    cutLength: 0,
    rapidLength: 0,
    cutSeconds: 0,
    rapidSeconds: 0,
    spent: {},
  };
  if (n < 1) return out;
  const length = new Float64Array(n);
  const speed = new Float64Array(n);
  const accel = new Float64Array(n);
  /** Square of the speed at the start of each block; one more for the end. */
  const entry = new Float64Array(n + 1);
  let px = 0;
  let py = 0;
  let pz = 0;
  for (let i = 0; i < n; i++) {
    const k = i * 4;
    const dx = data[k + 4] - data[k];
    const dy = data[k + 5] - data[k + 1];
    const dz = data[k + 6] - data[k + 2];
    const L = Math.hypot(dx, dy, dz);
    const feed = data[k + 7];
    const ux = dx / L;
    const uy = dy / L;
    const uz = dz / L;
    const top = Math.min(m.maxFeed.x / Math.abs(ux), m.maxFeed.y / Math.abs(uy), m.maxFeed.z / Math.abs(uz)) / 60;
    const wanted = feed > 0 ? feed / 60 : top;
    length[i] = L;
    speed[i] = Math.min(top, wanted);
    accel[i] = Math.min(
      m.acceleration.x / Math.abs(ux),
      m.acceleration.y / Math.abs(uy),
      m.acceleration.z / Math.abs(uz),
    );
    out.naiveSeconds += L / wanted;
    if (feed > 0) out.cutLength += L;
    else out.rapidLength += L;
    if (i > 0) {
      const cosine = -(px * ux + py * uy + pz * uz);
      let v2 = Math.min(speed[i], speed[i - 1]) ** 2;
      if (cosine > 0.999999) v2 = 0;
      else if (cosine > -0.999999) {
        // The corner's own acceleration is limited by the axes along the change of direction.
        const jx = ux - px;
        const jy = uy - py;
        const jz = uz - pz;
        const j = Math.hypot(jx, jy, jz);
        const a = Math.min(
          m.acceleration.x / Math.abs(jx / j),
          m.acceleration.y / Math.abs(jy / j),
          m.acceleration.z / Math.abs(jz / j),
        );
        const s = Math.sqrt(0.5 * (1 - cosine));
        v2 = Math.min(v2, (a * m.junctionDeviation * s) / (1 - s));
      }
      entry[i] = v2;
    }
    px = ux;
    py = uy;
    pz = uz;
  }
  for (let i = n - 1; i >= 0; i--) entry[i] = Math.min(entry[i], entry[i + 1] + 2 * accel[i] * length[i]);
  for (let i = 0; i < n; i++) entry[i + 1] = Math.min(entry[i + 1], entry[i] + 2 * accel[i] * length[i]);
  for (let i = 0; i < n; i++) {
    const v = speed[i];
    const a = accel[i];
    const L = length[i];
    const v0 = Math.sqrt(entry[i]);
    const v1 = Math.sqrt(entry[i + 1]);
    const peak2 = Math.min(v * v, (2 * a * L + entry[i] + entry[i + 1]) / 2);
    const peak = Math.sqrt(peak2);
    const ramps = (2 * peak2 - entry[i] - entry[i + 1]) / (2 * a);
    const t = (2 * peak - v0 - v1) / a + Math.max(0, L - ramps) / peak;
    out.seconds += t;
    if (data[i * 4 + 7] > 0) out.cutSeconds += t;
    else out.rapidSeconds += t;
    if (!kinds) continue;
    const kind = MOVES[kinds[i + 1]];
    out.spent[kind] = (out.spent[kind] ?? 0) + t;
  }
  return out;
}
