import { isObject, type Raw } from './raw';

const listOf = (v: unknown): unknown[] => (Array.isArray(v) ? v : []);

/** Where version 2 only said that there is a spoilboard: a usual thickness (common practice, no source), mm. */
const SPOILBOARD = 12;
/** From the end of the travel down to the bed on machines of which only the travel was known, mm. */
const BELOW_TRAVEL = 25;
/** Collets that nearly every spindle of the trade comes with (common practice, no source), mm. */
const COLLETS = [3.175, 6, 6.35];

/** Materials of version 2, which it held by name alone: stepdown as a share of the diameter, and what to beware of. */
const MATERIALS: Record<string, { stepdown: number; stockToLeave?: number; caution?: string }> = {
  pine: { stepdown: 0.5 },
  lime: { stepdown: 0.5 },
  beech: { stepdown: 0.4 },
  maple: { stepdown: 0.4 },
  walnut: { stepdown: 0.4, caution: 'walnut dust irritates skin and lungs' },
  MDF: { stepdown: 0.5, caution: 'MDF dust is fine and bound with resin: extraction and a mask' },
  foam: { stepdown: 1 },
  'solid surface': { stepdown: 0.4, caution: 'fine mineral dust: extraction and a mask' },
  brass: { stepdown: 0.1, stockToLeave: 0.2, caution: 'sharp hot chips: eye protection' },
};

/** A material of version 2, which was a name, with the figures that version 3 holds of it. */
export function materialToV3(name: unknown): unknown {
  if (typeof name !== 'string') return name;
  const known = MATERIALS[name];
  return {
    id:
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .slice(0, 60) || 'material',
    name,
    stepdown: known?.stepdown ?? 0.4,
    stockToLeave: known?.stockToLeave ?? 1,
    rampAngle: 4,
    chipLoad: { least: 0.01, most: 0.25 },
    caution: known?.caution ?? null,
  };
}

/** A bit of version 2 with what version 3 holds of it besides. */
export function cutterToV3(raw: unknown): unknown {
  if (!isObject(raw)) return raw;
  const plunges = typeof raw.maxPlungeDepth === 'number' && raw.maxPlungeDepth > 0;
  return { helix: 'up', cutsAtCentre: plunges, price: null, runs: 0, ...raw };
}

/** A machine of version 2 with what version 3 holds of it besides. */
export function machineToV3(raw: unknown): unknown {
  if (!isObject(raw)) return raw;
  const travel = typeof raw.zTravel === 'number' ? raw.zTravel : 0;
  return {
    bedToNose: travel + BELOW_TRAVEL,
    dialect: 'rs274',
    collets: COLLETS,
    stiffness: 'usual',
    parking: null,
    rotary: 'none',
    programLimit: { lines: null, bytes: null },
    ...raw,
  };
}

function layerToV3(raw: unknown): unknown {
  if (!isObject(raw)) return raw;
  const { tilt, fade, join, ...rest } = raw;
  return { ...rest, slope: tilt, thin: fade, join: join === 'fade' ? 'blend' : join };
}

/** Places of the back were kept as seen from the face; a board on its face has been turned over its y axis. */
function backSkim(raw: Raw, width: unknown): Raw {
  const { side, ...rest } = raw;
  const points = listOf(raw.points).map((p) =>
    isObject(p) && typeof p.x === 'number' && typeof width === 'number' ? { ...p, x: width - p.x } : p,
  );
  return { ...rest, points };
}

/** A pass of the face: a skim does not say any more that it is of the face. */
function frontPass(p: unknown): unknown {
  if (!isObject(p) || p.kind !== 'skim') return p;
  const { side, ...pass } = p;
  return pass;
}

/**
 * Brings a job document of version 2, which had one board lying on its back, to version 3, which has boards with setups. A skimmed
 * back becomes a setup of its own before the face's. The same programs are cut.
 */
export function v2ToV3(raw: Raw): unknown {
  if (!isObject(raw.board)) return raw;
  const { board, layers, gaps, seat, passes, machine, cutters, ...rest } = raw;
  const { origin, zZero, spoilboard, place, material, face, ...wood } = board;
  const isBack = (p: unknown) => isObject(p) && p.kind === 'skim' && p.side === 'back';
  const setup = (id: string, name: string, up: string) => ({
    id,
    name,
    up,
    zero: { origin, z: zZero },
    place,
    spoilboard: spoilboard === true ? SPOILBOARD : spoilboard === false ? null : spoilboard,
    heights: { approach: 1, between: 1, everything: 5 },
    holding: [],
    references: { cross: null, ticks: [], spots: [] },
  });
  const backs = listOf(passes).filter(isBack) as Raw[];
  const others = Array.isArray(passes) ? passes.filter((p) => !isBack(p)) : passes;
  return {
    ...rest,
    version: 3,
    boards: [
      {
        id: 'board',
        name: 'Board',
        ...wood,
        material: materialToV3(material),
        face: face ?? 'bare',
        setups: [
          ...(backs.length > 0
            ? [
                {
                  ...setup('back', 'Back', 'back'),
                  layers: [],
                  gaps: [],
                  seat: { mode: 'raised', skin: 0, drop: 0, press: null },
                  passes: backs.map((p) => backSkim(p, wood.x)),
                },
              ]
            : []),
          {
            ...setup('face', 'Face', 'face'),
            layers: Array.isArray(layers) ? layers.map(layerToV3) : layers,
            gaps,
            seat,
            passes: Array.isArray(others) ? others.map(frontPass) : others,
          },
        ],
      },
    ],
    machine: machineToV3(machine),
    cutters: Array.isArray(cutters) ? cutters.map(cutterToV3) : cutters,
  };
}
