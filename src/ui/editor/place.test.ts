import { expect, test } from 'vitest';
import { Drafts } from './drafts';
import { emptyBoard, FakeBrowser } from './editor-test-kit';
import { altered, type Line, lastSaved, saved, stepped } from './line';
import { isStep, type Place, placeOf, START, STATIONS, searchOf } from './place';

test('a place comes back from the address that says it, whatever its names hold', () => {
  const places: Place[] = STATIONS.flatMap((station) => [
    { ...START, station },
    { station, setup: 's 1', layers: ['a&b', 'ü=?'], pass: 'p/2', finding: 'gouge/s1/p1/12' },
  ]);
  for (const p of places) expect(placeOf(searchOf(p))).toEqual(p);
  expect(searchOf(START)).toBe('');
});

test('an address of nothing we know is the start', () => {
  expect(placeOf('?station=kitchen&other=1')).toEqual(START);
});

test('too many selected layers are left out of the address rather than half of them', () => {
  const layers = Array.from({ length: 41 }, (_, i) => `layer-${i}`);
  expect(placeOf(searchOf({ ...START, layers })).layers).toEqual([]);
});

test('a selection is no step of its own, a station, a setup and a finding are', () => {
  expect(isStep(START, { ...START, layers: ['a'], pass: 'p' })).toBe(false);
  for (const to of [{ station: 'Run' as const }, { setup: 's' }, { finding: 'f' }])
    expect(isStep(START, { ...START, ...to })).toBe(true);
});

const lineOf = (n: number): Line => {
  let line: Line = { entries: [{ id: 'v0', document: emptyBoard() }], at: 0 };
  for (let i = 1; i <= n; i++) line = altered(line, (j) => void (j.name = `n${i}`));
  return line;
};

test('a line keeps its last two hundred steps, and never changes an older line', () => {
  const two = lineOf(2);
  expect(two.entries.map((e) => e.document.name)).toEqual(['Board', 'n1', 'n2']);
  expect(stepped(two, 1)).toBe(two);
  const back = stepped(two, -1);
  expect([back.at, two.at]).toEqual([1, 2]);
  expect(altered(back, (j) => void (j.name = 'other')).entries.map((e) => e.document.name)).toEqual([
    'Board',
    'n1',
    'other',
  ]);
  const long = lineOf(260);
  expect(long.entries).toHaveLength(201);
  expect(long.entries[long.at].document.name).toBe('n260');
});

test('a version that was cut off while it was saved leaves the line as it is', () => {
  const two = lineOf(2);
  const other = altered(stepped(stepped(two, -1), -1), (j) => void (j.name = 'other'));
  expect(saved(other, two.entries[1], 'v1').entries.map((e) => e.id)).toEqual(['v0', null]);
  expect(lastSaved(saved(two, two.entries[1], 'v1'))).toBe(1);
});

test('texts of fields that are no values yet come back after a reload, with why not', () => {
  const { memory } = new FakeBrowser();
  const before = new Drafts(memory, 'fields j');
  before.put('Board thickness', '19 mm', { text: '19 mmm', error: '"19 mmm" is not a length' });
  before.put('Board width', '300 mm', { text: '30', error: null });
  const after = new Drafts(memory, 'fields j');
  expect(after.get('Board thickness', '19 mm')).toEqual({
    of: '19 mm',
    text: '19 mmm',
    error: '"19 mmm" is not a length',
  });
  expect(after.get('Board width', '300 mm')?.text).toBe('30');
  // The value has become another meanwhile: the text was of the old one.
  expect(after.get('Board width', '400 mm')).toBe(null);
  after.put('Board width', '300 mm', null);
  after.put('Board thickness', '19 mm', { text: '19 mm', error: null });
  expect(memory.get('fields j')).toBe(null);
});

test('what a tab remembers of an earlier version of the program is nothing', () => {
  const { memory } = new FakeBrowser();
  memory.put('fields j', '{"a":"just a text"}');
  expect(new Drafts(memory, 'fields j').get('a', '')).toBe(null);
});

test('only the newest hundred texts are kept, and none that is endless', () => {
  const { memory } = new FakeBrowser();
  const drafts = new Drafts(memory, 'fields j');
  for (let i = 0; i < 120; i++) drafts.put(`field ${i}`, '1', { text: '2', error: null });
  drafts.put('long', '1', { text: 'x'.repeat(3000), error: null });
  expect(drafts.get('field 19', '1')).toBe(null);
  expect(drafts.get('field 20', '1')).not.toBe(null);
  expect(drafts.get('long', '1')).toBe(null);
});
