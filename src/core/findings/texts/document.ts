import { trimNumber } from '../../units/length';
import { sayLength } from '../../units/say';
import { len, num, type Text } from './text';

const THINGS: Record<string, string> = {
  mask: 'the mask of',
  outline: 'the outline of pass',
  distance: 'the distance',
};

/** What is wrong with where dowels stand. */
const DOWEL_FAULTS: Record<string, [string, string]> = {
  alone: ['one dowel lets the board turn about it', 'set a second one, far from it'],
  outside: ['a dowel does not stand wholly in the board', 'move it onto the board'],
  'off-axis': [
    'turned over, the board does not come to lie on its dowels',
    'set them on the axis that it is turned over about',
  ],
  symmetric: [
    'the board fits on its dowels the wrong way round as well',
    'set one of them nearer to the middle than the other',
  ],
};

/** Of what is wrong in a document before anything is planned. */
export const DOCUMENT_TEXTS: Record<string, Text> = {
  value: (f) => [
    f.how === 'small'
      ? `${f.field} is ${f.value}; it has to be ${f.open ? 'more than' : 'at least'} ${f.bound}`
      : f.how === 'big'
        ? `${f.field} is ${f.value}; it has to be ${f.open ? 'less than' : 'at most'} ${f.bound}`
        : `${f.field} is ${f.value}: ${f.said}`,
    'set it to a value within its bounds',
  ],
  'id-twice': (f) => [
    `the ${f.kind} "${f.id}" is there twice`,
    'give each an id of its own, so that it is clear which is meant',
  ],
  'no-setup': () => ['the job has no board that is clamped in a setup', 'add a board with a setup'],
  'no-pass': () => ['no setup has a pass, so there is nothing to cut', 'add a pass at the station Passes'],
  'layer-missing': (f) => [
    `${THINGS[String(f.what)]} ${f.of} names the layer "${f.name}", which is not on this board`,
    f.what === 'distance' ? 'remove the distance, or name another layer' : 'leave it out, or name another layer',
  ],
  'one-file': (f) => [`one file needs a tool changer, which ${f.machine} has not`, 'write a file for each bit'],
  'bit-missing': (f) => [`the bit "${f.bit}" is not among the job's bits`, 'choose one that is'],
  'bit-unsuited': (f) => [`${f.bit} ${f.why}`, 'choose another bit for this pass'],
  'bit-wide': (f) => [`${f.bit} is ${len(f, 'width')} wide, wider than the board`, 'choose a narrower bit'],
  order: (f) => [String(f.why), 'put the passes in the order of work'],
  'drum-machine': (f) => [
    `the board is a drum, and ${f.machine} has no axis that turns it`,
    'choose a machine with a rotary axis, or enter the one that it has',
  ],
  'drum-sheet': (f) => [
    `the sheet is ${len(f, 'width')} wide; wound round a drum of ${len(f, 'diameter')} it is ${len(f, 'round')}`,
    'its width is pi times the diameter',
  ],
  'drum-short': (f) => [
    `the drum is ${len(f, 'length')} long, of which chuck and tail stock hold ${sayLength(num(f, 'chuck') + num(f, 'tailStock'))}`,
    `take a blank of at least ${len(f, 'least')}, or glue extensions on`,
  ],
  'drum-side': (f) => [
    `${f.setup} lies on its face; a drum is turned to every side of it`,
    'let it be a setup of the face',
  ],
  'turned-flat-board': (f) => [
    `${f.layer} is a form for a drum, and this board lies flat`,
    'remove it, or make the board a drum that turns',
  ],
  'turned-askew': (f) => [
    `${f.layer} is turned by ${trimNumber(num(f, 'turn'), 1)} degrees; a turned form lies along the axis of the drum`,
    'turn it back to 0; flutes run askew by their twist',
  ],
  'turned-deep': (f) => [
    `${f.layer} goes ${len(f, 'rise')} deep, and the axis lies ${len(f, 'radius')} below the surface`,
    `up to ${len(f, 'most')} can be cut; its core has to carry the cut besides`,
  ],
  'flute-deep': (f) => [
    `${f.layer} is ${len(f, 'rise')} deep, deeper than the ball of ${len(f, 'radius')} radius that it is shaped for`,
    'carve it less deep, or shape it for a wider ball',
  ],
  'drum-only': (f) => [`${f.pass} goes round a drum, and this board lies flat`, 'remove the pass'],
  'hole-cone': (f) => [
    `a hole of ${len(f, 'hole')} milled with ${f.bit} by turning the drum would be narrower at its bottom`,
    'drill it with a bit as wide as it is',
  ],
  'hole-axis': (f) => [
    `the hole reaches the axis, ${len(f, 'radius')} below the surface`,
    `go ${len(f, 'most')} deep at most; drill the rest from the other side`,
  ],
  'hole-dowel': () => ['a drum is not turned over on dowels: the chuck holds its place', 'make them plain holes'],
  'part-collar': (f) => [
    `a groove at ${len(f, 'x')} would cut the collar, which lies ${len(f, 'width')} wide at ${len(f, 'collar')}`,
    'move one of them',
  ],
  'collar-place': (f) => [
    `a collar at ${len(f, 'x')} does not lie between what holds the drum`,
    `it can lie from ${len(f, 'from')} to ${len(f, 'to')}`,
  ],
  'part-narrow': (f) => [
    `the groove is ${len(f, 'width')} wide, and ${f.bit} is ${len(f, 'diameter')}`,
    'make it as wide as its bit, or take a narrower bit',
  ],
  'part-nothing': (f) => [
    `${len(f, 'left')} are to be left of a drum that is ${len(f, 'diameter')} across`,
    'leave less: enough to carry the work, little enough to be sawn off',
  ],
  'part-held': (f) => [
    `a groove at ${len(f, 'x')} would be cut where the drum is held`,
    `it can lie from ${len(f, 'low')} to ${len(f, 'high')}`,
  ],
  'turn-small': (f) => [
    `a drum of ${len(f, 'diameter')} does not come out of this blank: ${len(f, 'lacks')} are missing at its flattest place`,
    `take a wider blank, or make the drum ${len(f, 'most')} across`,
  ],
  'turn-corner': (f) => [
    `the blank stands ${len(f, 'over')} over the drum, and moves pass ${len(f, 'height')} over that at most`,
    'travel higher over everything',
  ],
  'drum-pass': (f) => [`${f.pass} does not work round a drum yet`, 'rough and finish it; cut the rest on a flat board'],
  'round-rows': (f) =>
    f.why === 'flat'
      ? ['a spiral goes round a drum, and this board lies flat', 'let it run in rows']
      : ['rows round a drum run along it or around it', 'use 0 or 90 degrees'],
  'stepover-wide': (f) => [
    `a stepover of ${len(f, 'stepover')} with ${f.bit} leaves ribs standing`,
    `use up to ${sayLength(num(f, 'most'), 4)}`,
  ],
  'stepover-fine': (f) => [
    `a stepover of ${sayLength(num(f, 'stepover'), 4)} is finer than 1/400 of ${f.bit}`,
    `use at least ${sayLength(num(f, 'least'), 4)}`,
  ],
  'skim-finished-face': (f) => [
    `the board's face is ${f.face} and must not be skimmed off`,
    'skim its back instead, in a setup of its own',
  ],
  'skim-uneven': (f) => [
    `the board stands ${len(f, 'high')} over what the skim leaves, and moves pass ${len(f, 'most')} over that at most`,
    'plane the board first, or travel higher over everything',
  ],
  'hole-narrow': (f) => [
    `${f.bit} is wider than a hole of ${len(f, 'hole')}`,
    'choose a narrower bit, or a wider hole',
  ],
  'hole-wide': (f) => [
    `${f.bit} drills holes of ${len(f, 'width')} only, not of ${len(f, 'hole')}`,
    'mill others with an end mill',
  ],
  'hole-plunge': (f) => [
    `${f.bit} does not cut at its centre: it can mill a wider hole, but not drill one of ${len(f, 'hole')}`,
    'make the hole wider, or drill it',
  ],
  'cutout-depth': (f) => [
    `the cut-out is to end ${len(f, 'depth')} deep in a board of ${len(f, 'board')}`,
    'let it end in the wood, where the other side meets it, or go through',
  ],
  'slot-deep': (f) => [
    `the slot is ${len(f, 'depth')} deep, and ${f.bit} goes in ${len(f, 'deepest')} up to its shank`,
    'make the slot less deep, or take a bit with a longer neck',
  ],
  'slot-lip': (f) => [
    num(f, 'lip') > 0
      ? `only ${len(f, 'lip')} of wood stand over the head of ${f.bit} in the slot: a piece hangs on ${len(f, 'least')} at least`
      : `the head of ${f.bit} is no lower than the board's top: nothing stands over it that a piece could hang on`,
    'make the slot deeper',
  ],
  'pocket-through': (f) => [
    `the pocket is ${len(f, 'depth')} deep in a board of ${len(f, 'board')}`,
    'make it less deep, or cut it out',
  ],
  'dowel-tight': (f) => [
    `a dowel of ${len(f, 'dowel')} does not go into a hole of ${len(f, 'hole')}`,
    'take a thinner dowel, or make the hole wider',
  ],
  'dowel-blind': (f) => [
    `holes for dowels end ${len(f, 'depth')} deep: no dowel stands in the spoilboard then`,
    'let them go through the board',
  ],
  'dowel-places': (f) => DOWEL_FAULTS[String(f.fault)],
  'tab-places': (f) => [`${f.count} tabs, but places for ${f.places}`, 'let them be placed anew'],
  'floor-over-tabs': (f) => [
    `a floor of ${len(f, 'floor')} is thicker than the tabs of ${len(f, 'tabs')}`,
    'leave less under the first laps',
  ],
  'figures-changed': (f) => [
    `the shop's ${f.what} ${f.name} has other figures now than this job`,
    'take the new ones, or keep what the job was planned with',
  ],
};
