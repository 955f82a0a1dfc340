import { formatLength } from '../../units/length';
import { len, num, type Text } from './text';

const STALLS = 'an axis that stalls loses its place and the next plunge goes through the work';

/** Of what the cut, simulated from the written programs, shows. */
export const PROOF_TEXTS: Record<string, Text> = {
  'rapid-through-material': (f) => [
    `${f.count} rapid ${f.count === 1 ? 'move goes' : 'moves go'} through the board, up to ${len(f, 'deep')} deep`,
    'do not run this program; plan the pass again',
  ],
  stepdown: (f) => [
    `${f.bit} cuts ${len(f, 'deep')} deep in one go, over its ${len(f, 'most')}`,
    'use a smaller stepdown, or rough first',
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
    `the ${f.part} of ${f.bit} ${f.rubs ? 'rubs' : 'hits'} a wall that stands ${len(f, 'deep')} above its ${f.part === 'shank' ? 'flutes' : 'nose'}`,
    f.part === 'shank'
      ? 'use a bit with longer flutes, a wider trench, or less depth'
      : 'let the bit stick out further, or carve less deep',
  ],
  'spindle-off': () => ['cuts with the spindle stopped', 'do not run this program; plan the pass again'],
  'spindle-speed': (f) => [
    `asks for ${f.rpm} rpm, ${f.machine} turns ${f.least} to ${f.most}`,
    'set the bit to a speed within that range',
  ],
  gouge: (f) => [`cut ${len(f, 'deep')} too deep, more than ${len(f, 'most')}`, 'plan it on a finer cell'],
  'keep-cut': (f) => [
    `board that must stay is cut ${formatLength(num(f, 'deep'), 'mm', 4)} deep`,
    'do not run these programs; make the area smaller',
  ],
  floor: (f) =>
    num(f, 'left') <= 0
      ? [
          `cuts through the board${f.bed ? ' into the bed: there is no spoilboard' : ''} by ${formatLength(-num(f, 'left'))}`,
          'lower the rise or the skin, or use a thicker board',
        ]
      : [
          `only ${len(f, 'left')} of board is left, less than ${len(f, 'least')}`,
          'lower the rise or the skin, or use a thicker board',
        ],
  'left-over': (f) => [
    `${num(f, 'share').toFixed(1)} % of the relief stands more than ${len(f, 'height')} above the target`,
    'a smaller bit reaches finer detail, a smaller stepover leaves lower ridges',
  ],
  'skim-left': (f) => [
    `the skim leaves the board ${len(f, 'height')} too thick here`,
    'plan the skim again, with a smaller stepover',
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
