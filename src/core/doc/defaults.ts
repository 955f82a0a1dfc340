import type { Cutter } from '../cutter/cutter';
import type { Machine } from './machine';
import type { Material } from './material';

const plain = { stockToLeave: 1, rampAngle: 4, chipLoad: { least: 0.01, most: 0.25 }, caution: null };
/** Ramps in solid wood: a quarter of the diameter deep over one diameter, as in oak. */
const wood = { ...plain, rampAngle: 14 };

/**
 * The materials that a new shop holds. Stepdown as a share of the diameter, stock to leave, and ramps by their length for one stepdown (1
 * diameter in oak, 8 in plywood, 2.7 in foam, 2.4 in brass): trade handbook, section 3; common practice, no source. Where none is told it is
 * plywood's.
 */
export const MATERIALS: Material[] = [
  { ...wood, id: 'pine', name: 'pine', stepdown: 0.5 },
  { ...wood, id: 'lime', name: 'lime', stepdown: 0.5 },
  { ...wood, id: 'cherry', name: 'cherry', stepdown: 0.4 },
  {
    ...wood,
    id: 'oak',
    name: 'oak',
    stepdown: 0.25,
    caution: 'oak dust irritates, and is held to harm over the years: extraction',
  },
  { ...wood, id: 'beech', name: 'beech', stepdown: 0.4 },
  { ...wood, id: 'maple', name: 'maple', stepdown: 0.4 },
  { ...wood, id: 'walnut', name: 'walnut', stepdown: 0.4, caution: 'walnut dust irritates skin and lungs' },
  {
    ...wood,
    id: 'mahogany',
    name: 'mahogany',
    stepdown: 0.4,
    caution: 'mahogany dust can cause allergies: extraction and a mask',
  },
  {
    ...plain,
    id: 'plywood',
    name: 'plywood',
    stepdown: 0.4,
    caution: 'its glue dulls bits: look at the edge after each board',
  },
  {
    ...plain,
    id: 'mdf',
    name: 'MDF',
    stepdown: 0.5,
    caution: 'MDF dust is fine and bound with resin: extraction and a mask',
  },
  { ...plain, id: 'foam', name: 'foam', stepdown: 1, stockToLeave: 0.6, rampAngle: 20 },
  { ...plain, id: 'foam-light', name: 'foam, light', stepdown: 1.5, stockToLeave: 0.75, rampAngle: 20 },
  { ...plain, id: 'foam-dense', name: 'foam, dense', stepdown: 0.7, stockToLeave: 0.5, rampAngle: 20 },
  {
    ...plain,
    id: 'solid-surface',
    name: 'solid surface',
    stepdown: 0.4,
    stockToLeave: 0.6,
    caution: 'fine mineral dust: extraction and a mask',
  },
  {
    ...plain,
    id: 'acrylic',
    name: 'acrylic',
    stepdown: 0.3,
    stockToLeave: 0.5,
    chipLoad: { least: 0.05, most: 0.25 },
    caution: 'melts where chips are too fine: a sharp bit, and no pause in the cut',
  },
  {
    ...plain,
    id: 'aluminium',
    name: 'aluminium',
    stepdown: 0.1,
    stockToLeave: 0.2,
    rampAngle: 2.4,
    caution: 'chips weld to the bit where they are not cleared: eye protection, a lubricant that its maker names',
  },
  {
    ...plain,
    id: 'brass',
    name: 'brass',
    stepdown: 0.1,
    stockToLeave: 0.2,
    rampAngle: 2.4,
    caution: 'sharp hot chips: eye protection',
  },
];

/** A material by its name; one that is not at hand gets the figures of a hard wood. */
export function materialNamed(name: string): Material {
  return (
    MATERIALS.find((m) => m.name === name) ?? {
      ...plain,
      id:
        name
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .slice(0, 60) || 'material',
      name,
      stepdown: 0.4,
    }
  );
}

/** A mid-sized hobby machine, the default where none is named. */
export const HOBBY_MACHINE: Machine = {
  id: 'hobby',
  name: 'Bench router 600',
  x: 600,
  y: 400,
  zTravel: 80,
  minRpm: 8000,
  maxRpm: 24000,
  maxFeed: { x: 5000, y: 5000, z: 2000 },
  acceleration: { x: 300, y: 300, z: 200 },
  junctionDeviation: 0.01,
  toolChanger: false,
  bedToNose: 105,
  dialect: 'rs274',
  collets: [3.175, 6, 6.35],
  stiffness: 'weak',
  parking: null,
  rotary: 'none',
  programLimit: { lines: null, bytes: null },
};

export const SHOP_MACHINE: Machine = {
  id: 'shop',
  name: 'Shop router 2400',
  x: 2400,
  y: 1200,
  zTravel: 150,
  minRpm: 6000,
  maxRpm: 24000,
  maxFeed: { x: 20000, y: 20000, z: 8000 },
  acceleration: { x: 1500, y: 1500, z: 1000 },
  junctionDeviation: 0.01,
  toolChanger: true,
  bedToNose: 165,
  dialect: 'rs274',
  collets: [3.175, 6, 6.35, 8, 10, 12.7],
  stiffness: 'usual',
  parking: { x: 0, y: 0, z: 150 },
  rotary: 'none',
  programLimit: { lines: null, bytes: null },
};

/** A small desktop machine for bits with a shank of an eighth of an inch. */
export const DESKTOP_MACHINE: Machine = {
  ...HOBBY_MACHINE,
  id: 'desktop',
  name: 'Desktop router 300',
  x: 300,
  y: 180,
  zTravel: 45,
  minRpm: 5000,
  maxRpm: 12000,
  maxFeed: { x: 2000, y: 2000, z: 800 },
  acceleration: { x: 150, y: 150, z: 100 },
  junctionDeviation: 0.02,
  bedToNose: 70,
  collets: [3.175],
};

/** A bench machine with a rotary axis beside its table. */
export const ROTARY_MACHINE: Machine = {
  ...HOBBY_MACHINE,
  id: 'rotary',
  name: 'Bench router 600 with rotary axis',
  rotary: 'along-x',
};

/** The machines that a new shop holds as examples. */
export const MACHINES: Machine[] = [HOBBY_MACHINE, SHOP_MACHINE, DESKTOP_MACHINE, ROTARY_MACHINE];

const base = {
  cornerRadius: 0,
  tipDiameter: 0,
  taperAngle: 0,
  includedAngle: 0,
  holderDiameter: 40,
  helix: 'up',
  upcut: 0,
  price: null,
  runs: 0,
} as const;

/** The bits that a new cutter drawer holds. */
export const DRAWER: Cutter[] = [
  {
    ...base,
    id: 'em6',
    number: 1,
    name: 'end mill 6.35',
    shape: 'endmill',
    diameter: 6.35,
    fluteLength: 25,
    shankDiameter: 6.35,
    stickOut: 32,
    flutes: 2,
    feed: 1800,
    plunge: 500,
    rpm: 16000,
    maxStepdown: 3.175,
    maxPlungeDepth: 0,
    cutsAtCentre: false,
  },
  {
    ...base,
    id: 'em3',
    number: 2,
    name: 'end mill 3.175',
    shape: 'endmill',
    diameter: 3.175,
    fluteLength: 15,
    shankDiameter: 3.175,
    stickOut: 22,
    flutes: 2,
    feed: 1200,
    plunge: 350,
    rpm: 18000,
    maxStepdown: 1.6,
    maxPlungeDepth: 0,
    cutsAtCentre: false,
  },
  {
    ...base,
    id: 'ball3',
    number: 3,
    name: 'ball 3.175',
    shape: 'ball',
    diameter: 3.175,
    fluteLength: 19,
    shankDiameter: 3.175,
    stickOut: 28,
    flutes: 2,
    feed: 1800,
    plunge: 500,
    rpm: 18000,
    maxStepdown: 4.8,
    maxPlungeDepth: 1.6,
    cutsAtCentre: true,
  },
  {
    ...base,
    id: 'ball6',
    number: 4,
    name: 'ball 6.35',
    shape: 'ball',
    diameter: 6.35,
    fluteLength: 25,
    shankDiameter: 6.35,
    stickOut: 32,
    flutes: 2,
    feed: 2000,
    plunge: 500,
    rpm: 16000,
    maxStepdown: 6.35,
    maxPlungeDepth: 3,
    cutsAtCentre: true,
  },
  {
    ...base,
    id: 'taper1',
    number: 5,
    name: 'tapered ball 1.6',
    shape: 'tapered-ball',
    diameter: 6.35,
    tipDiameter: 1.6,
    taperAngle: 4,
    fluteLength: 30,
    shankDiameter: 6.35,
    stickOut: 36,
    flutes: 2,
    feed: 1500,
    plunge: 400,
    rpm: 18000,
    maxStepdown: 3,
    maxPlungeDepth: 0.8,
    cutsAtCentre: true,
  },
  {
    ...base,
    id: 'bull6',
    number: 6,
    name: 'bull-nose 6 r1',
    shape: 'bullnose',
    diameter: 6,
    cornerRadius: 1,
    fluteLength: 22,
    shankDiameter: 6,
    stickOut: 30,
    flutes: 2,
    feed: 1800,
    plunge: 450,
    rpm: 16000,
    maxStepdown: 3,
    maxPlungeDepth: 0,
    cutsAtCentre: false,
  },
  {
    ...base,
    id: 'v60',
    number: 7,
    name: 'V 60',
    shape: 'v',
    diameter: 12.7,
    tipDiameter: 0.2,
    includedAngle: 60,
    fluteLength: 11,
    shankDiameter: 6.35,
    stickOut: 30,
    flutes: 2,
    feed: 1200,
    plunge: 400,
    rpm: 18000,
    maxStepdown: 3,
    maxPlungeDepth: 1,
    cutsAtCentre: true,
  },
  {
    ...base,
    id: 'drill6',
    number: 8,
    name: 'drill 6',
    shape: 'drill',
    diameter: 6,
    includedAngle: 118,
    fluteLength: 45,
    shankDiameter: 6,
    stickOut: 55,
    flutes: 2,
    feed: 400,
    plunge: 250,
    rpm: 8000,
    maxStepdown: 6,
    maxPlungeDepth: 6,
    cutsAtCentre: true,
  },
];
