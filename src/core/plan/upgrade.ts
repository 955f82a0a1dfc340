import { PLAIN_LAYER } from '../arrange/layer';
import { PLAIN_TONE } from '../sources/tone';

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

/**
 * Brings a job document of version 1, which had one relief, to version 2, which has layers. The same board is cut: a relief
 * that was sunk the wrong way round is carved into the board's top, one that was sunk as it stands lies its own rise
 * below it. Anything else is handed on as it is.
 */
export function upgradeJob(raw: unknown): unknown {
  const old = raw as { version?: unknown; relief?: Relief1; seat?: { mode?: unknown; skin?: unknown } } | null;
  if (typeof old !== 'object' || old === null || old.version !== 1 || typeof old.relief !== 'object') return raw;
  const { relief: r, ...rest } = old;
  if (!r) return raw;
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
