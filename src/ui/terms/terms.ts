import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import type { TermFigures } from './term-figures';

export const TERMS = [
  'rise',
  'lift',
  'slope',
  'thinning',
  'joins',
  'skin',
  'trench',
  'stepover',
  'ridge',
  'stepdown',
  'stock',
  'ramp',
  'tab',
  'milling',
  'web',
] as const;
export type Term = (typeof TERMS)[number];

const told = (v: number) => sayLength(v, v < 0.1 ? 3 : 2);

/** What each term means, in one or two sentences with the job's own figures. */
export const MEANINGS: Record<Term, (f: TermFigures) => string> = {
  rise: (f) => `A layer's own height, from its foot to its highest place: ${told(f.rise)} here.`,
  lift: (f) =>
    `How far a layer's foot is raised: ${told(f.lift)} here. Stacked on or carved into something it counts from what lies beneath, else from the base plane.`,
  slope: () => 'The whole layer leans: one side comes up as far as the other goes down. Its middle stays where it is.',
  thinning: () =>
    'Over this width the layer fades out towards its edge, so that it grows out of the ground without a step.',
  joins: () =>
    'How a layer and what lies beneath it become one surface. Stack on adds its height; carve into takes it away; highest and lowest wins take one of the two at each place; blend is a mean of both.',
  skin: (f) =>
    `Board that is left above the model's highest place before cutting, ${told(f.skin)} here. A little of it lets a board that is not quite flat come out without uncut spots.`,
  trench: (f) =>
    `The ground cleared around the outline, counted from the outline to the far wall: ${told(f.trench)} here. The bit needs that room, and so does the shank of the bit that cuts the piece out.`,
  stepover: (f) =>
    `From one row to the next: ${told(f.stepover)} here, ${trimNumber((100 * f.stepover) / f.wide, 0)} % of the ${told(f.wide)} of ${f.bit}.`,
  ridge: (f) =>
    f.round
      ? `What a round tip leaves standing between two rows: ${sayLength(f.ridge, 4)} on level ground with ${f.bit} at a stepover of ${told(f.stepover)}. Half the stepover leaves a quarter of it.`
      : `What a round tip leaves standing between two rows. ${f.bit} is flat and leaves none on level ground.`,
  stepdown: (f) =>
    `The most that a pass goes down at once: ${told(f.stepdown)} here. Deeper places are cut in several levels.`,
  stock: (f) =>
    `Wood that roughing leaves for finishing, to the side as well as below: ${told(f.stock)} here. It keeps the mark of the rough bit out of the finished face.`,
  ramp: (f) =>
    `The bit goes down into solid wood along its path, at ${trimNumber(f.ramp, 1)}° here, rather than straight down: ${told(f.stepdown / Math.tan((f.ramp * Math.PI) / 180))} of way for ${told(f.stepdown)} of depth.`,
  tab: (f) =>
    `A short piece of board that is left standing across the cut, ${told(f.tab.length)} long and ${told(f.tab.thickness)} thick here, so that the piece does not come loose before it is meant to.`,
  milling: () =>
    'Which side of the turning bit the wood lies on. Climb leaves the cleaner wall but draws the bit into the wood; conventional pushes it away and suits machines that give way.',
  web: (f) =>
    `Board that is left between what is cut from both faces: the ${told(f.thickness)} of the board less both depths, at every place. Below the deepest cut of one face it is the floor.`,
};

/** Fields and figures whose label is such a term. */
const BY_LABEL: Record<string, Term> = {
  Rise: 'rise',
  Lift: 'lift',
  Slope: 'slope',
  Thinning: 'thinning',
  Joins: 'joins',
  'Skin above': 'skin',
  Trench: 'trench',
  Stepover: 'stepover',
  'Ridge height': 'ridge',
  Stepdown: 'stepdown',
  'Stock to leave': 'stock',
  Ramp: 'ramp',
  Tabs: 'tab',
  Milling: 'milling',
  'Web, at least': 'web',
};

/** The term that a label is; null where it speaks for itself. */
export const termOf = (label: string): Term | null => BY_LABEL[label] ?? null;
