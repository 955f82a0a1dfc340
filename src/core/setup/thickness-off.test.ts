import { expect, test } from 'vitest';
import type { Board } from '../doc/board';
import { dishes, planWhole } from '../plan/plan-test-kit';
import { formatLength } from '../units/length';
import { offInWords, thicknessOff } from './thickness-off';

const zeros = (face: 'top' | 'bed', back: 'top' | 'bed') =>
  ({
    setups: [
      { up: 'face', zero: { z: face } },
      { up: 'back', zero: { z: back } },
    ],
  }) as unknown as Board;

test('a board that is off in thickness, for each choice of zero, by hand', () => {
  // Depths from each side's own top: the web is thickness less both. From the bed a cut is deeper by what the board is thicker.
  for (const [face, back, web] of [
    ['top', 'top', 0.2],
    ['top', 'bed', 0],
    ['bed', 'top', 0],
    ['bed', 'bed', -0.2],
  ] as const) {
    const b = zeros(face, back);
    expect(thicknessOff(b, b.setups[1], 0.2).web).toBeCloseTo(web, 12);
    expect(thicknessOff(b, b.setups[1], 0.2).depth).toBe(back === 'bed' ? 0.2 : 0);
  }
  const b = zeros('bed', 'bed');
  expect(offInWords(b, b.setups[0], formatLength)).toBe(
    'if the board is 0.2 mm thicker than measured: the web gets 0.2 mm thinner, its rim 0.2 mm thicker, cuts here go 0.2 mm deeper',
  );
});

test('programs counted from the bed, cut into a board that is thicker, leave the web that this says', async () => {
  // The same programs as written on a board 0.2 mm thicker: from the bed their heights are those of the planned thickness.
  const web = async (z: 'top' | 'bed') => {
    const { face, back } = dishes();
    for (const v of [face, back]) v.setup.zero.z = z;
    const plan = await planWhole(face.document);
    const depth = (text: string) => Math.min(...Array.from(text.matchAll(/Z(-?[\d.]+)/g), (m) => Number(m[1])));
    const lows = ['face', 'back'].map((s) =>
      Math.min(...plan.summary.programs.filter((p) => p.setup === s).map((p) => depth(p.text))),
    );
    const thicker = face.board.thickness + 0.2;
    // From the top a word is a depth; from the bed it is what stands under the tip.
    const left = z === 'top' ? lows.map((v) => thicker + v) : lows;
    return { now: left[0] + left[1] - thicker, planned: plan.summary.boards[0].thinnest };
  };
  for (const z of ['top', 'bed'] as const) {
    const { now, planned } = await web(z);
    expect(now - planned).toBeCloseTo(z === 'top' ? 0.2 : -0.2, 1);
  }
});
