import type { Material } from './material';

const plain = { stockToLeave: 1, rampAngle: 4, chipLoad: { least: 0.01, most: 0.25 }, plunges: true, caution: null };
/** Metal that is carved: shallow, flat ramps, fine chips, and nothing straight down (common practice, no source). */
const metal = {
  ...plain,
  stepdown: 0.1,
  stockToLeave: 0.2,
  rampAngle: 2.4,
  chipLoad: { least: 0.004, most: 0.05 },
  plunges: false,
};
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
    ...metal,
    id: 'aluminium',
    name: 'aluminium',
    caution: 'chips weld to the bit where they are not cleared: eye protection, a lubricant that its maker names',
  },
  {
    ...metal,
    id: 'brass',
    name: 'brass',
    caution:
      'sharp hot chips: eye protection, held by tape or a jig and never by hand, chips brushed away with the spindle stopped',
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
