import { trimNumber } from '../../units/length';
import { sayFeed, sayLength } from '../../units/say';
import { len, num, type Text } from './text';

const STALLS = 'an axis that stalls loses its place and the next plunge goes through the work';

/** What programs say of themselves, as a sentence names it. */
const MODE_NAMES: Record<string, string> = {
  unit: 'its unit (G20, G21)',
  plane: 'its plane (G17)',
  places: 'absolute places (G90)',
  feed: 'feed a minute (G94)',
  offset: 'its zero (G54)',
};

/** Of what the cut, simulated from the written programs, shows. */
export const PROOF_TEXTS: Record<string, Text> = {
  'rapid-through-material': (f) => [
    `${f.count} rapid ${f.count === 1 ? 'move goes' : 'moves go'} through the board, up to ${len(f, 'deep')} deep`,
    'do not run this program; plan the pass again',
  ],
  chuck: (f) => [
    `the bit comes ${len(f, 'over')} over the ${f.end} at less than ${len(f, 'height')} over the drum`,
    'do not run this program; it would turn into steel; keep the carving away from the ends, or take a longer blank',
  ],
  'not-planned-here': (f) => [
    `is not as it was planned here; it is proven in the place of ${f.like}`,
    'its setup and the bit at its start are taken from there; what it was meant to do is not known',
  ],
  bite: (f) => [
    `${f.bit} meets wood ${len(f, 'deep')} high over its tip, more than the ${len(f, 'most')} that it may take at once`,
    'use a smaller stepdown, or rough first',
  ],
  'chip-area': (f) => [
    `${f.bit} takes ${num(f, 'area').toFixed(1)} mm³ a mm beside a wall, its usual cut and a half is ${num(f, 'most').toFixed(1)}`,
    'it may pull into the wall and break; use a smaller stepdown, or leave less to it',
  ],
  load: (f) => [
    `${f.bit} takes ${num(f, 'times').toFixed(1)} times its usual volume a second, at ${sayFeed(Math.round(num(f, 'feed')))}`,
    'a full slot wants a slower feed than a cut at the side; slow it down there, or take less at once',
  ],
  'plunge-deep': (f) => [
    `${f.bit} goes straight down into ${len(f, 'deep')} of wood, it may ${len(f, 'most')}`,
    'most bits cut badly at their middle, or not at all; let it ramp in, or take a bit that may plunge so deep',
  ],
  'plunge-fast': (f) => [
    `${f.bit} goes down into wood at ${sayFeed(Math.round(num(f, 'down')))}, where it bears ${sayFeed(Math.round(num(f, 'most')))}`,
    'slow the descent down, or raise its plunge feed if the bit bears it',
  ],
  caught: (f) => [
    `the head of ${f.bit} ${f.rapid ? 'is drawn' : 'goes'} into the wood over it, ${len(f, 'deep')} deep`,
    'it is wider than its slit: it breaks, or tears the lip off; take it back to where it went in before it goes up',
  ],
  loose: (f) => [
    `a piece of ${num(f, 'area').toFixed(0)} mm²${f.tabs ? `, which hung on tabs that ${f.tabs} has left,` : ''} is joined to nothing that is held when this program ends`,
    'a piece that comes loose is thrown by the bit; leave tabs, cut its trench less deep, mill it away, or hold it from below',
  ],
  'held-hardly': (f) => [
    `a piece of ${num(f, 'area').toFixed(0)} mm² hangs on wood ${len(f, 'neck')} thick or wide, ${num(f, 'section').toFixed(1)} mm² of it at the least, when this program ends`,
    'it may tear out; leave more under the trench, or hold it from below',
  ],
  'beyond-board': (f) => [
    `the bit runs ${len(f, 'beyond')} beyond the board's edge`,
    'keep clamps away from there, or make the relief smaller',
  ],
  'outside-machine': (f) => [
    `needs ${f.axis} from ${len(f, 'from')} to ${len(f, 'to')} on the table, ${f.machine} has 0 to ${len(f, 'room')}`,
    'move the board on the table, or choose a larger machine',
  ],
  'z-travel': (f) =>
    num(f, 'over') > 0
      ? [
          `the spindle's nose would stand ${len(f, 'highest')} over the bed of ${f.machine}, which ends at ${len(f, 'most')}`,
          `${STALLS}; travel lower, let the bit stick out less, or take a thinner spoilboard`,
        ]
      : [
          `the spindle's nose would go down to ${len(f, 'lowest')} over the bed of ${f.machine}, whose travel ends at ${len(f, 'least')}`,
          `${STALLS}; let the bit stick out further, or lay a thicker spoilboard`,
        ],
  reach: (f) => [
    `the ${f.part} of ${f.bit} ${f.rubs ? 'rubs' : 'hits'} wood that stands ${len(f, 'deep')} above its ${f.part === 'shank' ? 'flutes' : 'nose'}${f.rapid ? ', at a rapid' : ''}`,
    f.part === 'shank'
      ? 'use a bit with longer flutes, a wider trench, or less depth'
      : 'let the bit stick out further, or carve less deep',
  ],
  'rapid-low': (f) => [
    `a rapid passes ${len(f, 'clear')} over what stands, less than the setup's ${len(f, 'least')}`,
    'a board that is not flat, or a zero that is a little off, would be met at full speed; let it pass higher',
  ],
  holding: (f) => [
    `the bit comes nearer to ${f.kind} ${f.number} than the ${len(f, 'free')} that are to be kept free`,
    'move what holds the board, or travel higher over it',
  ],
  'feed-written': (f) =>
    f.crawl
      ? [`a feed of ${sayFeed(num(f, 'feed'))}`, 'nothing is cut so slowly: a word of the program is wrong']
      : [
          `asks for ${sayFeed(num(f, 'feed'))}, ${f.machine} does ${sayFeed(Math.round(num(f, 'most')))} in that direction`,
          'use a feed that the machine reaches',
        ],
  'chip-load': (f) => [
    `${f.bit} takes chips of ${len(f, 'load')} a tooth, ${f.material} asks for ${len(f, 'least')} to ${len(f, 'most')}`,
    num(f, 'load') > num(f, 'most')
      ? 'feed slower or turn faster; the bit may break'
      : 'feed faster or turn slower; the bit rubs and burns',
  ],
  'cuts-nothing': (f) => [
    `${f.bit} takes nothing away`,
    'its place in the order, its depth or its zero is another than was meant',
  ],
  'program-modes': (f) => [
    `moves before it says ${(f.unsaid as string[]).map((m) => MODE_NAMES[m] ?? m).join(', ')}`,
    'what a program does not say is as the last one left it; say it in the first lines',
  ],
  'program-end': (f) => [
    [
      f.said ? '' : 'does not say that it ends',
      f.turning ? 'ends with the spindle turning' : '',
      f.low ? `ends with the tip at ${len(f, 'z')}, lower than the ${len(f, 'least')} that clear everything` : '',
    ]
      .filter(Boolean)
      .join('; '),
    'end every program at its travel height with M5 and M30',
  ],
  'program-long': (f) => [
    `has ${f.has} ${f.unit}, ${f.machine} takes ${f.most}`,
    'a wider tolerance or stepover makes it shorter, or split its area',
  ],
  'tool-word': (f) => [
    f.missing
      ? `calls for bit ${f.tool}, which the job does not have`
      : f.unsized
        ? `calls for bit ${f.tool} without its length offset (G43 H${f.tool})`
        : `calls for bit ${f.tool}, and ${f.machine} changes none by itself`,
    f.missing
      ? 'put that bit into the job, or correct the number'
      : f.unsized
        ? 'the bit would cut as deep as another one is longer; say the offset of the bit that is called for'
        : 'write a file for each bit',
  ],
  'spindle-wait': (f) => [
    `the spindle gets ${num(f, 'wait')} s to reach its speed, at least ${num(f, 'least')} s is usual`,
    'a bit that meets wood while it starts up is torn out of its collet or broken; wait after M3 (G4)',
  ],
  'spindle-off': (f) => [
    f.wrong ? 'cuts with the spindle turning the wrong way' : 'cuts with the spindle stopped',
    'do not run this program; plan the pass again',
  ],
  'spindle-speed': (f) => [
    `asks for ${f.rpm} rpm, ${f.machine} turns ${f.least} to ${f.most}`,
    'set the bit to a speed within that range',
  ],
  collet: (f) => [
    `${f.bit} has a shank of ${len(f, 'shank')}, for which ${f.machine} has no collet`,
    'use a bit with another shank, or enter the collet on the machine if there is one',
  ],
  gouge: (f) => [
    `cut ${sayLength(num(f, 'deep'), 3)} too deep, more than ${len(f, 'most')}`,
    f.finer === false
      ? 'the board is too large for a finer cell: finish with a larger bit, or carve it as two boards'
      : 'plan it on a finer cell',
  ],
  'keep-cut': (f) => [
    `board that must stay is cut ${sayLength(num(f, 'deep'), 4)} deep`,
    'do not run these programs; make the area smaller',
  ],
  'waste-deep': (f) => [
    `waste is cut ${len(f, 'deep')} deeper than any pass was to go`,
    'look at the depths of the program; the spoilboard or the backing gives way there',
  ],
  floor: (f) =>
    num(f, 'left') <= 0
      ? [
          `cuts through the board${f.bed ? ' into the bed: there is no spoilboard' : ''} by ${sayLength(-num(f, 'left'))}`,
          'lower the rise or the skin, or use a thicker board',
        ]
      : [
          `only ${len(f, 'left')} of board is left, less than ${len(f, 'least')}`,
          'lower the rise or the skin, or use a thicker board',
        ],
  'left-over': (f) => [
    `${trimNumber(num(f, 'volume'), 2)} cm³ stand over the target, ${len(f, 'deep')} at the highest, on ${trimNumber(num(f, 'share'), 1)} % of the relief`,
    f.why === 'width'
      ? `a round tip of up to ${len(f, 'most')} gets in there; the finest of this job is ${len(f, 'own')} wide`
      : f.why === 'none'
        ? 'no bit gets in there: that is work for a knife, or for a wider gap'
        : 'its bits get in there: a smaller stepover, or a finishing pass over that ground, takes it away',
  ],
  'skim-left': (f) => [
    `${f.round ? 'turning round leaves the drum' : 'the skim leaves the board'} ${len(f, 'height')} too thick here`,
    'plan it again, with a smaller stepover',
  ],
  joined: () => [
    'the piece is still joined to its frame here, and not by a tab',
    'cut deeper into the spoilboard, or plan the cut-out again',
  ],
  'no-tabs': () => [
    'no tab holds the piece: it comes loose in the last lap',
    'set tabs, or hold it by tape, film or vacuum',
  ],
  'tab-holds': (f) =>
    f.holds
      ? [
          `a tab of ${len(f, 'length')} x ${len(f, 'thickness')} hardly holds the piece`,
          'make the tabs thicker or longer, or move this one to where more of the board stands',
        ]
      : [
          'this tab holds nothing: no wood stands on one side of it',
          'move it to where the board goes on, or take a larger board',
        ],
};
