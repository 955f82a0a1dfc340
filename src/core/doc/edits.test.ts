import { expect, test } from 'vitest';
import { drawerBit, plainSetup } from '../plan/plan-test-kit';
import { HOBBY_MACHINE } from './defaults';
import { inBoard, inSetup, withEdits } from './edits';

const view = plainSetup({
  name: 'a',
  order: '',
  machine: HOBBY_MACHINE,
  rough: drawerBit('em6'),
  finish: drawerBit('ball3'),
  board: { x: 100, y: 80, thickness: 18 },
});

test('a path is set, an entry put in and taken out; the document itself stays as it is', () => {
  const before = structuredClone(view.document);
  const made = withEdits(view.document, [
    { set: inBoard(view, 'thickness'), to: 20 },
    { set: inSetup(view, 'passes', { id: 'finish' }, 'stepover'), to: 0.5 },
    { insert: inSetup(view, 'passes'), at: 1, value: { ...view.passes[0], id: 'again' } },
    { remove: inSetup(view, 'passes', { id: 'rough' }) },
    { set: ['cutters', 0], to: drawerBit('em3') },
  ]);
  expect(view.document).toEqual(before);
  const [board] = made.boards;
  expect(board.thickness).toBe(20);
  expect(board.setups[0].passes.map((p) => p.id)).toEqual(['again', 'finish']);
  expect(board.setups[0].passes[1]).toMatchObject({ stepover: 0.5 });
  expect(made.cutters[0].id).toBe('em3');
});

test('an edit of what is gone says so', () => {
  expect(() => withEdits(view.document, [{ set: inSetup(view, 'passes', { id: 'gone' }, 'stepover'), to: 1 }])).toThrow(
    'the job has no boards.board.setups.face.passes.gone any more',
  );
  expect(() => withEdits(view.document, [{ remove: ['cutters', { id: 'gone' }] }])).toThrow('"gone"');
});
