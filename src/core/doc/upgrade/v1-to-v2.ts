/** What a job of version 1 said of its one relief. */
interface Relief1 {
  file: string;
  hash: string;
  kind: 'mesh' | 'image';
  unit?: unknown;
  turns?: unknown;
  mirror?: unknown;
  base?: unknown;
  size?: unknown;
  rise?: unknown;
  centre?: unknown;
  invert?: unknown;
}

/** What a layer of version 2 had unless it was said otherwise. */
const PLAIN_LAYER = {
  hidden: false,
  locked: false,
  group: null,
  lift: 0,
  turn: 0,
  mirror: false,
  tilt: { x: 0, y: 0 },
  fade: 0,
  invert: false,
  join: 'stack',
  amount: 1,
  copies: { kind: 'one' },
  mask: { kind: 'none' },
};

/** How an image's tones were taken unless it was said otherwise. */
const PLAIN_TONE = {
  noise: 0,
  terraces: false,
  smooth: 0,
  smoothBelow: 0.1,
  black: 0,
  white: 1,
  gamma: 1,
  invert: false,
  cutout: { threshold: null, light: false, strokes: [] },
};

/**
 * Brings a job document of version 1, which had one relief, to version 2, which has layers. The same board is cut: a relief
 * that was sunk the wrong way round is carved into the board's top, one that was sunk as it stands lies its own rise
 * below it. Anything else is handed on as it is.
 */
export function v1ToV2(raw: Record<string, unknown>): unknown {
  const old = raw as { relief?: Relief1 | null; seat?: { mode?: unknown; skin?: unknown } };
  const { relief: r, ...rest } = old;
  if (typeof r !== 'object' || r === null) return raw;
  const sunk = old.seat?.mode === 'sunk';
  const carved = sunk && r.invert === true;
  const source =
    r.kind === 'image'
      ? { kind: 'image', file: r.file, hash: r.hash, blackIsGround: true, tone: PLAIN_TONE }
      : { kind: 'mesh', file: r.file, hash: r.hash, unit: r.unit, turns: r.turns, flip: r.mirror, base: r.base };
  const drop = sunk && !carved && typeof r.rise === 'number' ? r.rise : 0;
  const layer = {
    ...PLAIN_LAYER,
    id: 'relief',
    name: typeof r.file === 'string' ? r.file.replace(/\.[a-z0-9]+$/i, '').slice(0, 80) || 'Relief' : 'Relief',
    source,
    size: r.size,
    rise: r.rise,
    centre: r.centre,
    invert: carved ? false : r.invert,
    join: carved ? 'carve' : 'stack',
  };
  return { ...rest, version: 2, layers: [layer], gaps: [], seat: { ...old.seat, drop, press: null } };
}
