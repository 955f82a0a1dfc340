import { expect, test } from 'vitest';
import { DESKTOP_MACHINE, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { withEdits } from '../doc/edits';
import { setupView } from '../setup/view';
import { onMachine } from './on-machine';
import { drawerBit, plainSetup } from './plan-test-kit';

const job = () =>
  plainSetup({
    name: 'M',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board: { x: 320, y: 200, thickness: 19, material: materialNamed('maple') },
  });

test('on its own machine nothing follows', () => {
  expect(onMachine(job(), HOBBY_MACHINE)).toEqual({ said: [], fit: [] });
});

test('on a weak one it is said what does not fit, and its bits are run as it can', () => {
  const view = job();
  const { said, fit } = onMachine(view, DESKTOP_MACHINE);
  const text = said.join(' | ');
  expect(text).toContain('reaches beyond the table of 300 mm by 180 mm');
  expect(text).toContain('no collet of it takes the 6.35 mm shank of end mill 6.35');
  expect(text).not.toContain('shank of ball 3.175');
  const after = setupView(withEdits(view.document, fit));
  for (const c of after.cutters) {
    expect(c.rpm).toBeLessThanOrEqual(DESKTOP_MACHINE.maxRpm);
    expect(c.feed).toBeLessThanOrEqual(Math.min(DESKTOP_MACHINE.maxFeed.x, DESKTOP_MACHINE.maxFeed.y));
    expect(c.plunge).toBeLessThanOrEqual(DESKTOP_MACHINE.maxFeed.z);
  }
  // What can be mended by figures is mended then; board and shanks are the person's to change.
  expect(onMachine(after, DESKTOP_MACHINE).fit).toEqual([]);
  expect(onMachine(after, DESKTOP_MACHINE).said.filter((s) => /rpm|faster/.test(s))).toEqual([]);
});
