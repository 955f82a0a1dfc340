import { expect, test } from 'vitest';
import { emptyBoard } from './editor-test-kit';
import { altered, changed, type Line } from './line';

test('what a change leaves as it was is the very same object, and the document before it stays as it was', () => {
  const before = emptyBoard();
  const kept = structuredClone(before);
  const after = changed(before, (j) => void (j.boards[0].setups[0].name = 'Renamed'));
  expect(before).toEqual(kept);
  expect(after.boards[0].setups[0].name).toBe('Renamed');
  expect(after.machine).toBe(before.machine);
  expect(after.cutters).toBe(before.cutters);
  expect(after.boards[0].setups[0].passes).toBe(before.boards[0].setups[0].passes);
  expect(after.boards).not.toBe(before.boards);
});

test('a change that changes nothing leaves the very same document, and is no step', () => {
  const document = emptyBoard();
  const name = document.name;
  const same = (j: typeof document) => {
    j.name = 'Other';
    j.name = name;
  };
  expect(changed(document, same)).toBe(document);
  const line: Line = { entries: [{ id: 'v0', document }], at: 0 };
  expect(altered(line, same)).toBe(line);
});
