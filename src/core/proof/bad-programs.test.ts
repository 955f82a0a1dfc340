import { expect, test } from 'vitest';
import { ROTARY_AXIS } from '../doc/defaults';
import { heldOver } from '../doc/drum';
import { KNOWN_RULES } from '../findings/texts/text-of';
import { drawerBit } from '../plan/plan-test-kit';
import { ProgramError } from '../program/reader';
import { type Change, proveText, slotTarget } from './proof-test-kit';

// Programs as a person might have edited them: each is bad in one way, and is found by name at the line that is marked with <<.

const HEAD = 'G21 G17 G90 G94 G54\nG0 Z5\nS16000 M3\nG4 P3\n';
const TAIL = '\nG0 Z5\nM5\nM30\n';
/** A slot as it should be cut, and what is done in its place. */
const SLOT = 'G0 X15 Y20\nG1 Z-2 F300\nX45 F1800';
const slot = (lines: string) => HEAD + lines + TAIL;

const clamp = (v: Parameters<NonNullable<Change['view']>>[0]) =>
  void v.setup.holding.push({
    id: 'c',
    kind: 'clamp',
    outline: [
      { x: 40, y: 15 },
      { x: 60, y: 15 },
      { x: 60, y: 25 },
      { x: 40, y: 25 },
    ],
    height: 15,
    keptFree: 5,
  });
const machine = (more: object) => (v: Parameters<NonNullable<Change['view']>>[0]) => {
  v.machine = { ...v.machine, ...more };
};

/** A slot bit whose head of 9.5 mm stands under a neck of 4.8 mm. */
const UNDER: Change = { cutter: drawerBit('slot9'), target: slotTarget(-9) };
const PROGRAMS: [rule: string, name: string, text: string, change?: Change][] = [
  ['caught', 'a slot bit goes up where it hangs', slot('G0 X15 Y20\nG1 Z-9 F300\nX45 F900\nG0 Z5<<'), UNDER],
  ['caught', 'it goes up at feed', slot('G0 X15 Y20\nG1 Z-9 F300\nX45 F900\nZ1 F300<<'), UNDER],
  ['caught', 'it comes back short of its hole', slot('G0 X15 Y20\nG1 Z-9 F300\nX45 F900\nX18\nG0 Z5<<'), UNDER],
  [
    'plunge-deep',
    'straight down into a metal, where the bit might into wood',
    slot('G0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800'),
    { view: (v) => void (v.board.material = { ...v.board.material, plunges: false }) },
  ],
  [
    'chuck',
    'down beside the chuck, where the bit comes over it',
    slot('G0 X22 Y0 A40\nG1 Z-2 F300<<\nX45 F1800\nG0 Z5'),
    {
      view: (v) => {
        v.board.drum = heldOver(20, 0);
        v.machine = { ...v.machine, rotary: ROTARY_AXIS };
      },
    },
  ],
  ['program-modes', 'no unit', `G17 G90 G94 G54\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`],
  ['program-modes', 'no plane', `G21 G90 G94 G54\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`],
  ['program-modes', 'no absolute places', `G21 G17 G94 G54\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`],
  ['program-modes', 'no feed a minute', `G21 G17 G90 G54\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`],
  ['program-modes', 'no offset', `G21 G17 G90 G94\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`],
  [
    'program-modes',
    'the unit only after the first move',
    `G17 G90 G94 G54\nG0 X15 Y20 Z5<<\nG21\nS16000 M3\n${SLOT}${TAIL}`,
  ],
  ['program-end', 'no end', `${HEAD}${SLOT}\nG0 Z5\nM5<<`],
  ['program-end', 'the spindle turns at the end', `${HEAD}${SLOT}\nG0 Z5\nM30<<`],
  ['program-end', 'ends in the wood', `${HEAD}${SLOT}\nM5\nM30<<`],
  ['program-end', 'ends low over the board', `${HEAD}${SLOT}\nG0 Z1\nM5\nM30<<`],
  ['program-end', 'cut short in the middle', `${HEAD}G0 X15 Y20\nG1 Z-2 F300<<`],
  [
    'tool-word',
    'a bit that the job does not have',
    slot(`T9 M6<<\nS16000 M3\n${SLOT}`),
    { view: machine({ toolChanger: true }) },
  ],
  ['tool-word', 'a change where nothing changes it', slot(`T1 M6<<\nS16000 M3\n${SLOT}`)],
  [
    'tool-word',
    'a bit whose length is not said',
    slot(`T1 M6<<\nS16000 M3\nG4 P3\n${SLOT}`),
    { view: machine({ toolChanger: true }) },
  ],
  [
    'tool-word',
    'the length of another bit',
    slot(`T1 M6<<\nG43 H2\nS16000 M3\nG4 P3\n${SLOT}`),
    { view: machine({ toolChanger: true }) },
  ],
  ['spindle-wait', 'no time to reach its speed', `G21 G17 G90 G94 G54\nG0 Z5\nS16000 M3<<\n${SLOT}${TAIL}`],
  ['spindle-wait', 'started again in the middle', slot(`${SLOT}\nG0 Z5\nM5\nM3<<\nG0 X15 Y20`)],
  [
    'tool-word',
    'a file for another bit',
    `G21 G17 G90 G94 G54\nG0 X15 Y20 Z5<<\nS16000 M3\n${SLOT}${TAIL}`,
    { tool: 7 },
  ],
  [
    'program-long',
    'more lines than the machine takes',
    slot(SLOT),
    { view: machine({ programLimit: { lines: 5, bytes: null } }) },
  ],
  [
    'program-long',
    'more bytes than the machine takes',
    slot(SLOT),
    { view: machine({ programLimit: { lines: null, bytes: 40 } }) },
  ],
  ['spindle-off', 'never started', `G21 G17 G90 G94 G54\nG0 Z5\nG0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800${TAIL}`],
  [
    'spindle-off',
    'the wrong way',
    `G21 G17 G90 G94 G54\nG0 Z5\nS16000 M4\nG0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800${TAIL}`,
  ],
  ['spindle-off', 'stopped before the cut', slot('M5\nG0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800')],
  ['spindle-off', 'stopped in the cut', slot('G0 X15 Y20\nG1 Z-2 F300\nM5\nX45 F1800<<')],
  ['spindle-off', 'turned round in the cut', slot('G0 X15 Y20\nG1 Z-2 F300\nM4\nX45 F1800<<')],
  ['spindle-speed', 'faster than it turns', slot('S60000\nG0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800')],
  ['spindle-speed', 'slower than it turns', slot('S120\nG0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800')],
  ['spindle-speed', 'slower for one move', slot('G0 X15 Y20\nG1 Z-2 F300\nS300\nX45 F1800<<')],
  ['rapid-through-material', 'down into the board', slot('G0 X15 Y20\nG0 Z-2<<\nG1 X45 F1800')],
  ['rapid-through-material', 'aside in the slot', slot('G0 X15 Y20\nG1 Z-2 F300\nG0 X45<<')],
  ['rapid-through-material', 'home before it is up', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F1800\nG0 X15 Y30<<')],
  ['rapid-through-material', 'slanting into the board', slot('G0 X15 Y20\nG0 X30 Z-1<<\nG1 X45 F1800')],
  ['rapid-low', 'a hair over the board', slot('G0 X15 Y20\nG0 Z0.2\nX45<<\nX15')],
  [
    'rapid-low',
    'lower than the setup says',
    slot('G0 X15 Y20 Z0.9\nX45<<'),
    { view: (v) => (v.setup.heights.approach = 3) },
  ],
  ['rapid-low', 'falling on its way', slot('G0 X15 Y20\nG0 X45 Z0.1<<')],
  ['holding', 'into the clamp', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F1800<<'), { view: clamp }],
  [
    'holding',
    'a rapid over the clamp',
    slot(`${SLOT}\nG0 Z5\nX55<<`),
    {
      view: (v) => {
        clamp(v);
        for (const p of v.setup.holding[0].outline) p.x += 15;
      },
    },
  ],
  ['holding', 'nearer than is kept free', slot('G0 X15 Y20\nG1 Z-2 F300\nX35 F1800<<'), { view: clamp }],
  [
    'holding',
    'beside it on the way down',
    slot('G0 Z20\nG0 X36 Y20\nG0 Z2<<\nG1 Z-2 F300\nX15 F1800'),
    { view: clamp },
  ],
  ['feed-written', 'a digit too many', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F18000<<')],
  ['feed-written', 'inches taken for millimetres', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F1.8<<')],
  ['feed-written', 'faster down than Z goes', slot('G0 X15 Y20\nG1 Z1 F3000<<\nZ-2 F300\nX45 F1800')],
  ['feed-written', 'sixty metres a minute', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F60000<<')],
  ['chip-load', 'too thick', slot('S5000\nG0 X15 Y20\nG1 Z-2 F300\nX45 F3500<<'), { view: machine({ minRpm: 1000 }) }],
  ['chip-load', 'too thin to cut', slot('G0 X15 Y20\nG1 Z-2 F100\nX45 F200<<')],
  ['cuts-nothing', 'zero too high', slot('G0 X15 Y20<<\nG1 Z2 F300\nX45 F1800')],
  ['cuts-nothing', 'over ground that is gone', slot('G0 X-40 Y-40<<\nG1 Z-2 F300\nX-20 F1800')],
  ['gouge', 'a tenth too deep', slot(SLOT.replace('Z-2', 'Z-2.1'))],
  [
    'gouge',
    'a millimetre too deep for a stretch',
    slot('G0 X15 Y20\nG1 Z-2 F300\nX30 F1800\nX31 Z-3 F300<<\nX45 F1800'),
  ],
  ['keep-cut', 'beyond its end', slot(SLOT.replace('X45', 'X55<<'))],
  ['keep-cut', 'a minus forgotten', slot('G0 X5 Y20\nG1 Z-2 F300\nX45 F1800')],
  [
    'waste-deep',
    'the trench three millimetres too deep',
    slot('G0 X15 Y36\nG1 Z-2.5 F300\nX45 F1800\nX15 Z-5 F500\nX45 F1800'),
    { target: slotTarget(-2, true) },
  ],
  ['waste-deep', 'a hole in the waste', slot('G0 X30 Y36\nG1 Z-3 F300<<\nG0 Z1'), { target: slotTarget(-2, true) }],
  ['floor', 'little is left', slot(SLOT), { view: (v) => (v.board.thickness = 3) }],
  ['floor', 'through into the bed', slot(SLOT), { view: (v) => (v.board.thickness = 1.5) }],
  ['bite', 'all at once', slot('G0 X15 Y20\nG1 Z-2 F300\nX45 F1800<<'), { cutter: { maxStepdown: 1 } }],
  [
    'bite',
    'a ramp that ends deeper than the bit may',
    slot('G0 X15 Y20\nG1 Z0 F300\nX45 Z-1.9 F1800<<\nX15'),
    { cutter: { maxStepdown: 1 } },
  ],
  [
    'chip-area',
    'a narrow strip along a high wall',
    slot('G0 X15 Y12\nG1 Z-10 F300\nX45 F1800\nY13\nX15<<'),
    { cutter: { maxStepdown: 2, maxPlungeDepth: 12 }, target: slotTarget(-10) },
  ],
  [
    'load',
    'a full slot as deep as the bit may, at the feed of a cut at the side',
    slot('G0 X15 Y20\nG1 Z-3 F300\nX45 F1800<<'),
    { target: slotTarget(-3) },
  ],
  [
    'load',
    'a corner of the slot taken at twice the feed',
    slot('G0 X15 Y20\nG1 Z-1.5 F300\nX45 F1800\nY25 F3600<<'),
    { target: slotTarget(-1.5) },
  ],
  [
    'plunge-deep',
    'straight down deeper than it may',
    slot('G0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800'),
    { cutter: { maxPlungeDepth: 1 } },
  ],
  [
    'plunge-deep',
    'in small steps, but without coming out',
    slot('G0 X15 Y20\nG1 Z-0.8 F300\nZ-1.4\nZ-2<<\nX45 F1800'),
    { cutter: { maxPlungeDepth: 1 } },
  ],
  ['plunge-fast', 'straight down at full feed', slot('G0 X15 Y20\nG1 Z-2 F1800<<\nX45')],
  ['plunge-fast', 'down a slope of 35 degrees at full feed', slot('G0 X15 Y20\nG1 Z0.1 F300\nX18 Z-2 F1800<<\nX45')],
  ['plunge-fast', 'down a steep ramp at full feed', slot('G0 X15 Y20\nG1 Z0.1 F300\nX16.5 Z-2 F1800<<\nX45')],
  [
    'loose',
    'a piece cut all around and through',
    slot('G0 X15 Y10\nG1 Z-12.2 F300\nX45 F1800\nY30\nX15\nY10'),
    { cutter: { maxStepdown: 13, maxPlungeDepth: 13 } },
  ],
  [
    'held-hardly',
    'a piece that hangs on a skin',
    slot('G0 X15 Y10\nG1 Z-11.6 F300\nX45 F1800\nY30\nX15\nY10'),
    { cutter: { maxStepdown: 13, maxPlungeDepth: 13 } },
  ],
  ['beyond-board', 'off the board', slot('G0 X-20 Y20\nG1 Z-1 F300\nX-18')],
  ['outside-machine', 'off the table', slot(SLOT), { view: (v) => (v.setup.place.x = 570) }],
  ['z-travel', 'lower than Z goes', slot(SLOT), { view: machine({ zTravel: 40 }) }],
  [
    'reach',
    'the holder on the board',
    slot(SLOT.replace('Z-2', 'Z-9')),
    { cutter: { stickOut: 6, maxPlungeDepth: 12 }, target: slotTarget(-9) },
  ],
  [
    'reach',
    'the holder in wood that is gone in the end',
    slot(
      'G0 X30 Y20\nG1 Z-9 F300<<\nZ-2\nX15 Y8 F1800\nX45\nY12\nX15\nY16\nX45\nY20\nX15\nY24\nX45\nY28\nX15\nY32\nX45',
    ),
    { cutter: { stickOut: 8.5, maxPlungeDepth: 12, maxStepdown: 12 }, target: slotTarget(-2) },
  ],
  [
    'reach',
    'the holder against the edge of the board at a rapid',
    slot(`${SLOT}\nG0 Z5\nX-6\nZ-5<<`),
    { cutter: { stickOut: 3 } },
  ],
  [
    'reach',
    'a shank that is wider than its bit',
    slot('G0 X15 Y20\nG1 Z-2 F300<<\nX45 F1800'),
    { cutter: { fluteLength: 1.5, shankDiameter: 8, holderDiameter: 8, stickOut: 40 } },
  ],
];

/** The program without its mark, and the line that it marks; 0 for what is told of no line. */
function marked(text: string): { text: string; line: number } {
  const line = text.split('\n').findIndex((l) => l.includes('<<')) + 1;
  return { text: text.replace('<<', ''), line };
}

test.each(PROGRAMS)('%s: %s', async (rule, _, program, change = {}) => {
  const { text, line } = marked(program);
  const { found } = await proveText(text, change);
  const f = found.find((e) => e.rule === rule);
  expect(f, found.map((e) => `${e.rule} ${e.subject.line ?? ''}`).join(', ')).toBeDefined();
  if (line > 0) expect(f?.subject.line).toBe(line);
});

test('a slot as it should be has none of these', async () => {
  const { found } = await proveText(slot(SLOT));
  expect(found.map((f) => f.rule)).toEqual(['left-over']);
});

test.each([
  ['spaces and small letters', slot('g0 x15   y20\n g1z-2f300\nx45 f1800')],
  ['comments', slot(`(a slot)\n${SLOT.replaceAll('\n', ' ; as planned\n')}`)],
  [
    'numbers of lines',
    slot(
      SLOT.split('\n')
        .map((l, n) => `N${10 * n} ${l}`)
        .join('\n'),
    ),
  ],
  ['a block that may be left out', slot(`/G0 Z-9\n${SLOT}`)],
  ['words in another order', slot('Y20 G0 X15\nF300 Z-2 G1\nF1800 X45')],
])('%s change nothing', async (_, text) => {
  const { found } = await proveText(text);
  expect(found.map((f) => f.rule)).toEqual(['left-over']);
});

test('tape, film and vacuum under the board are no obstacle', async () => {
  for (const kind of ['tape', 'film', 'vacuum'] as const) {
    const view: Change['view'] = (v) => {
      clamp(v);
      v.setup.holding[0].kind = kind;
    };
    const { found } = await proveText(slot(SLOT), { view });
    expect(found.map((f) => f.rule)).toEqual(['left-over']);
  }
});

test.each([
  // Beside a slot that is open already: the share of the disc that then stands on wood by the overlap of two circles.
  ['a hair of a wall', 0.25, false],
  ['a tenth of the disc', 0.5, false],
  ['nearly half of the disc', 2.5, true],
  ['all of it', 8, true],
])('straight down again beside a slot, into %s', async (_, aside, harm) => {
  const again = `${SLOT}\nG0 Z5\nX30 Y${20 + aside}\nG1 Z-2 F300`;
  const { found } = await proveText(slot(again), { cutter: { maxPlungeDepth: 2.1 } });
  expect(found.map((f) => f.rule)).not.toContain('plunge-deep');
  const strict = await proveText(slot(again), { cutter: { maxPlungeDepth: 1 } });
  const at = strict.found.filter((f) => f.rule === 'plunge-deep').map((f) => f.place);
  // The slot's own beginning is a plunge too; the worst is told.
  expect(at.length).toBe(1);
  const alone = await proveText(slot(again.replace('G1 Z-2 F300\n', 'G1 Z-0.9 F300\nX20 Z-2\nX15\n')), {
    cutter: { maxPlungeDepth: 1 },
  });
  expect(alone.found.some((f) => f.rule === 'plunge-deep')).toBe(harm);
});

test.each([
  ['a V bit', '-3', { shape: 'v', includedAngle: 60, tipDiameter: 0.2, diameter: 6.35, maxStepdown: 4 }],
  ['a ball', '-3', { shape: 'ball', diameter: 6.35, maxStepdown: 4 }],
  ['a ball in small steps', '-1.1\nZ-1.6\nZ-2.2\nZ-3', { shape: 'ball', diameter: 6.35, maxStepdown: 4 }],
] as const)('%s straight down into solid wood counts by all of its depth, whatever its shape', async (_, z, cutter) => {
  const { found } = await proveText(slot(`G0 X15 Y20\nG1 F300 Z${z}\nX45 F1800`), {
    cutter: { ...cutter, maxPlungeDepth: 1 },
    target: slotTarget(-3),
  });
  const told = found.find((f) => f.rule === 'plunge-deep');
  expect(Number(told?.figures?.deep)).toBeGreaterThan(2.9);
});

test('there is a bad program for every rule about programs', () => {
  const about = KNOWN_RULES.filter((r) =>
    /^(program|tool|spindle|rapid|holding|feed-w|chip|cuts|gouge|keep|waste|bite|plunge|beyond|outside|z-t|reach|loose|held|caught)/.test(
      r,
    ),
  );
  const has = new Set(PROGRAMS.map(([rule]) => rule));
  expect(about.filter((r) => !has.has(r))).toEqual([]);
  expect(PROGRAMS.length).toBeGreaterThanOrEqual(50);
});

test('what cannot be followed to the letter is refused with its line', async () => {
  for (const line of ['G5 X1', 'X1..2', 'G2 X45 F1800', 'G1 X45 (open', 'M98 P1'])
    await expect(proveText(slot(`G0 X15 Y20\n${line}`))).rejects.toThrow(ProgramError);
});
