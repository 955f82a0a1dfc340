import type { Cutter } from '../cutter/cutter';
import type { Machine } from './job';

/** Materials with their stepdown as a share of the bit's diameter (trade handbook, section 3; common practice, no source). */
export const MATERIALS: { name: string; stepdown: number; caution: string | null }[] = [
  { name: 'pine', stepdown: 0.5, caution: null },
  { name: 'lime', stepdown: 0.5, caution: null },
  { name: 'beech', stepdown: 0.4, caution: null },
  { name: 'maple', stepdown: 0.4, caution: null },
  { name: 'walnut', stepdown: 0.4, caution: 'walnut dust irritates skin and lungs' },
  { name: 'MDF', stepdown: 0.5, caution: 'MDF dust is fine and bound with resin: extraction and a mask' },
  { name: 'foam', stepdown: 1, caution: null },
  { name: 'solid surface', stepdown: 0.4, caution: 'fine mineral dust: extraction and a mask' },
  { name: 'brass', stepdown: 0.1, caution: 'sharp hot chips: eye protection' },
];

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
};

const base = { cornerRadius: 0, tipDiameter: 0, taperAngle: 0, includedAngle: 0, holderDiameter: 40 };

/** The bits that a new cutter drawer holds. */
export const DRAWER: Cutter[] = [
  { ...base, id: 'em6', number: 1, name: 'end mill 6.35', shape: 'endmill', diameter: 6.35, fluteLength: 25, shankDiameter: 6.35, stickOut: 32, flutes: 2, feed: 1800, plunge: 500, rpm: 16000, maxStepdown: 3.175, maxPlungeDepth: 0 },
  { ...base, id: 'em3', number: 2, name: 'end mill 3.175', shape: 'endmill', diameter: 3.175, fluteLength: 15, shankDiameter: 3.175, stickOut: 22, flutes: 2, feed: 1200, plunge: 350, rpm: 18000, maxStepdown: 1.6, maxPlungeDepth: 0 },
  { ...base, id: 'ball3', number: 3, name: 'ball 3.175', shape: 'ball', diameter: 3.175, fluteLength: 19, shankDiameter: 3.175, stickOut: 28, flutes: 2, feed: 1800, plunge: 500, rpm: 18000, maxStepdown: 4.8, maxPlungeDepth: 1.6 },
  { ...base, id: 'ball6', number: 4, name: 'ball 6.35', shape: 'ball', diameter: 6.35, fluteLength: 25, shankDiameter: 6.35, stickOut: 32, flutes: 2, feed: 2000, plunge: 500, rpm: 16000, maxStepdown: 6.35, maxPlungeDepth: 3 },
  { ...base, id: 'taper1', number: 5, name: 'tapered ball 1.6', shape: 'tapered-ball', diameter: 6.35, tipDiameter: 1.6, taperAngle: 4, fluteLength: 30, shankDiameter: 6.35, stickOut: 36, flutes: 2, feed: 1500, plunge: 400, rpm: 18000, maxStepdown: 3, maxPlungeDepth: 0.8 },
  { ...base, id: 'bull6', number: 6, name: 'bull-nose 6 r1', shape: 'bullnose', diameter: 6, cornerRadius: 1, fluteLength: 22, shankDiameter: 6, stickOut: 30, flutes: 2, feed: 1800, plunge: 450, rpm: 16000, maxStepdown: 3, maxPlungeDepth: 0 },
  { ...base, id: 'v60', number: 7, name: 'V 60', shape: 'v', diameter: 12.7, tipDiameter: 0.2, includedAngle: 60, fluteLength: 11, shankDiameter: 6.35, stickOut: 30, flutes: 2, feed: 1200, plunge: 400, rpm: 18000, maxStepdown: 3, maxPlungeDepth: 1 },
];
