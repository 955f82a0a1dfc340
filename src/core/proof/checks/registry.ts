import { distanceOff, wordsSize } from './arranged';
import { baseLost } from './base-lost';
import { beyondBoard } from './beyond-board';
import { bite, narrowCut } from './bite';
import { caught } from './caught';
import { chuckHit } from './chuck';
import { clipped } from './clipped';
import { collet } from './collet';
import { feed } from './feed';
import { chips, feedWritten } from './feed-written';
import { floor } from './floor';
import { gouge } from './gouge';
import { grid } from './grid';
import { grooveNotCarved } from './groove-not-carved';
import { grooveUncut } from './groove-uncut';
import { holding } from './holding';
import { idle } from './idle';
import { imageSteps } from './image-steps';
import { joined } from './joined';
import { keepCut } from './keep-cut';
import { layerBump, layerBuried, layerHuge, layerIdle, layerLost } from './layer-effect';
import { layerHeld } from './layer-held';
import { layerOutside } from './layer-outside';
import { leftOver } from './left-over';
import { load } from './load';
import { heldHardly, loose } from './loose';
import { missingLetters } from './missing-letters';
import { noTabs } from './no-tabs';
import { nothingToCut } from './nothing-to-cut';
import { outsideMachine } from './outside-machine';
import { plungeDeep, plungeFast } from './plunge';
import { programEnd, programLong, programModes, spindleWait, toolWord } from './program-frame';
import { rapid } from './rapid';
import { rapidLow } from './rapid-low';
import { reach } from './reach';
import { registration } from './registration';
import { restsHollow } from './rests-hollow';
import { roundCopies } from './round-copies';
import type { Rule } from './rule';
import { skimLeft } from './skim-left';
import { spindleOff } from './spindle';
import { spindleSpeed } from './spindle-speed';
import { tabHolds } from './tab-holds';
import { thickness } from './thickness';
import { thinFeature } from './thin-feature';
import { wasteDeep } from './waste-deep';
import { zTravel } from './z-travel';

/** All rules, in the order in which their findings are told; what passes check of themselves stands in their rooms. */
export const RULES: Rule[] = [
  thickness,
  layerOutside,
  layerHeld,
  roundCopies,
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
  registration,
  restsHollow,
  grid,
  feed,
  programModes,
  programEnd,
  programLong,
  toolWord,
  spindleWait,
  rapid,
  rapidLow,
  chuckHit,
  holding,
  bite,
  narrowCut,
  load,
  plungeDeep,
  plungeFast,
  caught,
  feedWritten,
  chips,
  idle,
  beyondBoard,
  outsideMachine,
  zTravel,
  reach,
  spindleOff,
  spindleSpeed,
  collet,
  gouge,
  keepCut,
  wasteDeep,
  floor,
  leftOver,
  skimLeft,
  joined,
  noTabs,
  loose,
  heldHardly,
  tabHolds,
];

/** What all rules find at one of their moments. */
export function found<K extends keyof Omit<Rule, 'id'>>(moment: K, at: Parameters<NonNullable<Rule[K]>>[0]) {
  return RULES.flatMap(
    (r) => (r[moment] as ((a: typeof at) => ReturnType<NonNullable<Rule[K]>>) | undefined)?.(at) ?? [],
  );
}
