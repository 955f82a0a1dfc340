import { distanceOff, wordsSize } from './arranged';
import { baseLost } from './base-lost';
import { beyondBoard } from './beyond-board';
import { clipped } from './clipped';
import { feed } from './feed';
import { floor } from './floor';
import { gouge } from './gouge';
import { grid } from './grid';
import { grooveNotCarved } from './groove-not-carved';
import { grooveUncut } from './groove-uncut';
import { imageSteps } from './image-steps';
import { joined } from './joined';
import { keepCut } from './keep-cut';
import { layerBump, layerBuried, layerHuge, layerIdle, layerLost } from './layer-effect';
import { layerOutside } from './layer-outside';
import { leftOver } from './left-over';
import { missingLetters } from './missing-letters';
import { noTabs } from './no-tabs';
import { nothingToCut } from './nothing-to-cut';
import { outsideMachine } from './outside-machine';
import { rapid } from './rapid';
import { reach } from './reach';
import type { Rule } from './rule';
import { skimLeft } from './skim-left';
import { spindleOff } from './spindle';
import { spindleSpeed } from './spindle-speed';
import { stepdown } from './stepdown';
import { tabHolds } from './tab-holds';
import { thickness } from './thickness';
import { thinFeature } from './thin-feature';
import { zTravel } from './z-travel';

/** All rules, in the order in which their findings are told; what passes check of themselves stands in their rooms. */
export const RULES: Rule[] = [
  thickness,
  layerOutside,
  distanceOff,
  wordsSize,
  layerHuge,
  layerIdle,
  layerBuried,
  layerLost,
  layerBump,
  nothingToCut,
  clipped,
  baseLost,
  thinFeature,
  imageSteps,
  missingLetters,
  grooveNotCarved,
  grooveUncut,
  grid,
  feed,
  rapid,
  stepdown,
  beyondBoard,
  outsideMachine,
  zTravel,
  reach,
  spindleOff,
  spindleSpeed,
  gouge,
  keepCut,
  floor,
  leftOver,
  skimLeft,
  joined,
  noTabs,
  tabHolds,
];

/** What all rules find at one of their moments. */
export function found<K extends keyof Omit<Rule, 'id'>>(moment: K, at: Parameters<NonNullable<Rule[K]>>[0]) {
  return RULES.flatMap(
    (r) => (r[moment] as ((a: typeof at) => ReturnType<NonNullable<Rule[K]>>) | undefined)?.(at) ?? [],
  );
}
