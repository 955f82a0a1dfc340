import { trimNumber } from '../../units/length';
import { sayFeed, sayLength } from '../../units/say';
import { len, num, type Text } from './text';

const quoted = (letters: unknown) => (letters as string[]).map((c) => `"${c}"`).join(', ');

/** Of what can be said before anything is cut. */
export const PLANNING_TEXTS: Record<string, Text> = {
  unregistered: (f) => [
    f.lacks === 'dowels'
      ? `${f.setup} is to lie on dowels, and no setup before it makes holes for them`
      : f.lacks === 'jig'
        ? `the pieces are to be laid into a jig for ${f.setup}, and no board of this job is one`
        : `nothing says how the board finds its place again in ${f.setup}, after it is turned over`,
    'dowels leave a tenth of a mm, a fence as much as its edges were measured wrongly; by eye it is half a mm',
  ],
  'rests-hollow': (f) => [
    num(f, 'wood') > 0
      ? `the board lies on ${f.share} % of its ground, and spans ${len(f, 'span')} with ${len(f, 'wood')} of wood over nothing`
      : 'the board lies on nothing at all: what its first side has left stands nowhere as high as its top',
    'it bends under the bit and is cut too deep there; cut the other side first, leave support standing, or lay it on a nest',
  ],
  thickness: (f) => [
    `${f.sunk ? 'a depth' : 'a height'} of ${len(f, 'depth')} and skin ${len(f, 'skin')} need ${len(f, 'needed')}, the board is ${len(f, 'thickness')} thick`,
    'bring the layers down together, or take a thicker board',
  ],
  'layer-held': (f) => [
    `${f.layer} reaches ${len(f, 'over')} into ${f.what === 'collar' ? 'the collar, which stays' : f.what === 'extension' ? 'what is glued on' : `what the ${f.what} holds`}`,
    'move it, or make it shorter: nothing is carved there',
  ],
  'layer-outside': (f) => [
    `${f.layer} of ${len(f, 'width')} x ${len(f, 'height')} reaches ${len(f, 'beyond')} beyond the board`,
    'make it smaller, move it, or take a larger board',
  ],
  'round-copies': (f) => [
    `${f.count} copies of ${f.layer}, ${sayLength(num(f, 'step'), 3)} apart, ${num(f, 'gap') > 0 ? 'leave a gap of' : 'overlap by'} ${sayLength(Math.abs(num(f, 'gap')), 3)} where they meet: the drum is ${sayLength(num(f, 'round'), 2)} round`,
    'space them evenly, or take as many as fit',
  ],
  'distance-off': (f) => [
    `${f.of} lies ${len(f, 'now')} from ${f.from}, and their distance is set to ${len(f, 'wanted')}`,
    'bring it to its distance, or change the distance',
  ],
  'words-size': (f) => [
    `${f.layer} measures ${len(f, 'width')} x ${len(f, 'height')} in its font, and its size is set to ${len(f, 'saidWidth')} x ${len(f, 'saidHeight')}`,
    'words are as large as their letters: change the height of the letters instead',
  ],
  'layer-huge': (f) => [
    `${f.layer} of ${len(f, 'width')} x ${len(f, 'height')} is ${trimNumber(num(f, 'times'), 1)} times as large as the board`,
    'its unit may be another than was taken; bring it to the size of the board',
  ],
  'layer-idle': (f) => [
    `${f.layer} changes nothing: ${f.join === 'lowest' ? 'what lies beneath it is lower everywhere' : f.join === 'highest' ? 'what lies beneath it is higher everywhere' : 'it has no height of its own where it lies'}`,
    'raise it, join it another way, or hide it',
  ],
  'layer-buried': (f) => [
    `${f.layer} does not show: other layers lie over all of it`,
    'move it up in the order, move them aside, or hide it',
  ],
  'layer-lost': (f) => [
    `${trimNumber(num(f, 'share'), 0)} % of ${f.layer} lies below the base plane and is lost`,
    'raise it, carve it less deep, or sink the piece into the board',
  ],
  'layer-bump': (f) => [
    `${f.layer} is a model of a recess, and joined this way its rim makes a bump`,
    'let it dig into what lies beneath',
  ],
  'nothing-to-cut': (f) => [
    num(f, 'layers') === 0
      ? 'there is no layer yet, so there is nothing to cut'
      : 'no layer lies on the board: there is nothing to cut',
    num(f, 'layers') === 0 ? 'add a relief, a shape or words' : 'move one onto the board, or show it',
  ],
  clipped: (f) =>
    f.sunk
      ? [
          `${trimNumber(num(f, 'area'), 1)} mm² stand up to ${len(f, 'most')} over the board's own top and are cut off there`,
          'lower the layer, or sink the piece deeper',
        ]
      : [
          `${trimNumber(num(f, 'area'), 1)} mm² lie up to ${len(f, 'most')} below the base plane and are lost`,
          'raise the layer there, or carve less deep',
        ],
  'base-lost': (f) => [
    `${trimNumber(num(f, 'thickness'), 1)} % of the thickness of ${f.layer} lies below its base plane and is lost${num(f, 'plan') > 0 ? `, with ${trimNumber(num(f, 'plan'), 1)} % of its plan` : ''}`,
    'lower the base plane to keep it',
  ],
  'thin-feature': (f) => [
    `${f.places} places of ${f.layer} are thinner than a cell of the grid and stand lower than they should`,
    'they are finer than the bit; a finer bit is planned on smaller cells, which show them',
  ],
  'image-steps': (f) => [
    `${f.layer} has few levels, which make steps of ${sayLength(num(f, 'step'), 3)}`,
    'smooth its steps, or take an image of more levels',
  ],
  'missing-letters': (f) => [
    `${f.layer}: the font has no ${quoted(f.letters)}`,
    'choose another font or other letters',
  ],
  'groove-not-carved': (f) => [
    `${f.layer} is shaped as a V groove but not carved in`,
    'let it carve into what lies beneath',
  ],
  'groove-uncut': (f) => [
    `${f.layer} is shaped for a V bit of ${trimNumber(num(f, 'angle'), 1)} degrees, and no pass cuts letters with one`,
    'add a pass for letters with that bit, or shape them for a bit that you have',
  ],
  'too-many-moves': (f) => [
    `${f.pass} with ${f.bit} comes to more than ${num(f, 'limit') / 1e6} million moves, so its planning is stopped`,
    'take larger steps: a wider stepover, a deeper stepdown or a coarser tolerance',
  ],
  'too-large': (f) => [
    `what is to be cut comes to ${trimNumber(num(f, 'cells'), 0)} million cells of ${sayLength(num(f, 'cell'), 3)}, and no more than ${num(f, 'most')} million are planned`,
    `carve it ${trimNumber(num(f, 'share'), 0)} % as large, or finish with a ball of ${sayLength(num(f, 'ball'), 1)} or wider`,
  ],
  grid: (f) => [
    `the board is large: planned with cells of ${sayLength(num(f, 'cell'), 3)} instead of ${sayLength(num(f, 'wanted'), 3)}`,
    'a smaller board or a larger finishing bit is planned finer',
  ],
  feed: (f) => [
    `${f.bit} is set to ${sayFeed(num(f, 'feed'))} and ${sayFeed(num(f, 'plunge'))} down, ${f.machine} reaches ${sayFeed(num(f, 'most'))} and ${sayFeed(num(f, 'mostDown'))}`,
    'check the unit of the feeds; the machine will go slower than planned',
  ],
  'trench-narrow': (f) => [
    `a trench of ${len(f, 'trench')} is too narrow for ${f.bit} with ${len(f, 'stock')} left on both sides`,
    `make it at least ${len(f, 'least')}`,
  ],
  'trench-cutout': (f) => [
    f.narrow
      ? `in the cut-out the ${f.part} of ${f.bit} comes below the board's top, and a trench of ${len(f, 'trench')} is too narrow for it`
      : `the trench is ${len(f, 'trench')} wide: in the cut-out the ${f.part} of ${f.bit} comes below the board's top`,
    f.narrow
      ? `make it at least ${len(f, 'least')}, or let the bit stand out further`
      : 'a bit that stands out further needs less',
  ],
  'board-stands': (f) => [
    `${f.count === 1 ? 'a piece of board stays' : `${f.count} pieces of board stay`} standing at the board's own top within the cleared ground, ${f.count === 1 ? '' : 'the largest '}${trimNumber(num(f, 'area') / 100, 1)} cm² in plan`,
    'clear it with a wider trench, or leave it where it belongs to the piece',
  ],
  'trench-room': (f) => [
    `no room for the trench of ${len(f, 'trench')}: only ${(f.sides as string[]).map((s, i) => `${sayLength(Number((f.rooms as string[])[i]))} on the ${s} side`).join(', ')}; the bit runs off the board there`,
    'keep clamps away from these sides, make the relief smaller, or take a larger board',
  ],
  'groove-edge': (f) => [
    `${f.layer} runs over an edge that is ${len(f, 'step')} high`,
    'move or turn it so that all of it lies on even ground, or cut it less deep',
  ],
  'skim-thin': (f) => [
    `the board is only ${len(f, 'thickness')} thick here, ${len(f, 'missing')} less than the skim is to leave`,
    `set the board's thickness to ${len(f, 'thickness')} or less`,
  ],
  'rough-idle': (f) =>
    f.why === 'shallow'
      ? [
          `the roughing has nothing to do: the relief is ${len(f, 'deep')} deep, and ${len(f, 'leave')} is left to finishing`,
          'leave less to finishing, or remove the pass',
        ]
      : f.why === 'rest'
        ? ['the roughing has nothing to do: the passes before it leave nothing that its bit reaches', 'remove the pass']
        : [
            `the roughing has nothing to do: ${f.bit}, ${len(f, 'wide')} wide with ${len(f, 'leave')} to leave, enters nowhere`,
            'take a smaller bit, leave less, or remove the pass',
          ],
  'skim-nothing': () => ['the skim takes nothing: the board is as thin as it is to be', 'remove the pass'],
  'no-spoilboard': (f) => [
    num(f, 'spoilboard') > 0
      ? `${f.what === 'holes' ? 'holes go' : 'the cut-out goes'} ${len(f, 'into')} into a spoilboard of ${len(f, 'spoilboard')}: through it to the bed`
      : f.what === 'holes'
        ? 'holes go through the board to the bed: there is no spoilboard'
        : `the cut-out goes through the board${num(f, 'into') > 0 ? ` and ${len(f, 'into')} into the bed` : ' to the bed'}: there is no spoilboard`,
    'lay a spoilboard under the board and say so on the board card',
  ],
  'cutout-no-line': () => [
    'the cut-out has no line: its outline is empty, or too narrow for the bit',
    'choose another outline, or a smaller bit',
  ],
  'stepdown-deep': (f) => [
    `${len(f, 'asked')} are asked of ${f.bit} at once, and it may take ${len(f, 'most')}: it is planned in levels of that`,
    'use a smaller stepdown, or a bit that bears more',
  ],
  'pocket-narrow': (f) => [
    `${f.bit} does not get into the outline anywhere, or there is none`,
    'choose another outline, or a smaller bit',
  ],
  'pocket-relief': (f) => [
    `the pocket takes away what has been finished before it: ${(num(f, 'share') * 100).toFixed(0)} % of it slopes`,
    'choose another outline for it, or leave it out',
  ],
  'pocket-rest': (f) => [
    `${f.bit} does not get into corners and necks of the pocket, ${num(f, 'area').toFixed(0)} mm² of it`,
    'a smaller bit can follow in them, or they stay round',
  ],
  'upcut-lap': (f) => [
    `the first lap goes ${len(f, 'first')} deep, and the upcut part of ${f.bit} reaches ${len(f, 'upcut')}: it tears the upper edge`,
    f.shallow
      ? 'take a downcut bit: a compression bit is not for shallow work'
      : 'take a bit that bears a deeper first lap, or a downcut bit',
  ],
  'entry-refused': (f) => [
    `at ${num(f, 'places') === 1 ? 'one place' : `${f.places} places`} ${f.bit} fits into a gap but has no room there to ramp down: up to ${len(f, 'deep')} of wood stay, and it may plunge ${len(f, 'most')}`,
    'let a smaller bit follow, open the gap a little, or leave it as it is',
  ],
  'tabs-placed': (f) =>
    num(f, 'placed') > num(f, 'asked')
      ? [
          `${f.placed} tabs stand where ${f.asked} were asked for: ${f.lines} lines are cut around, and each piece is held by one at least`,
          'ask for as many, or hold the pieces from below and leave tabs out',
        ]
      : [
          `${f.asked} tabs were asked for and ${f.placed} find room along ${f.lines === 1 ? 'the line' : `${f.lines} lines`}`,
          'make the tabs shorter, or ask for fewer',
        ],
  'tabs-overlap': (f) => [
    `two tabs stand ${len(f, 'apart')} apart along the line and take ${len(f, 'least')} with their slopes: they are cut as one`,
    'let them be placed anew, or set them further apart',
  ],
  'tab-plunge': (f) => [
    `behind every upright tab ${f.bit} goes straight down up to ${len(f, 'deep')}, and it may plunge ${len(f, 'most')}`,
    'let the tabs be sloped',
  ],
  corner: (f) => {
    const reach =
      f.how === 'flutes'
        ? `${f.other} has flutes of ${len(f, 'flutes')} for the ${len(f, 'below')} below the trench`
        : f.how === 'holder'
          ? `${f.other} sticks out ${len(f, 'stickOut')} for a depth of ${len(f, 'depth')}: its holder meets the board unless the trench is as wide`
          : `${f.other} reaches down`;
    return [
      `${f.bit} does not get into this inside corner: ${trimNumber(num(f, 'area'), 1)} mm² stay`,
      num(f, 'most') === 0
        ? 'it is too sharp for any bit; finish it with a knife'
        : `a bit of up to ${sayLength(num(f, 'most'))} goes in${f.how === 'none' ? ', and this job has none' : `; ${reach}`}`,
    ];
  },
};
