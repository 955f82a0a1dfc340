import { expect, test } from 'vitest';
import type { RackEntry } from '@/contract/jobs';
import { foldersOf, onRack, type Shown, stateOf } from './rack-order';

const entry = (name: string, more: Partial<RackEntry> = {}): RackEntry => ({
  id: name,
  name,
  order: '',
  board: '300 × 200 × 19 mm maple',
  unreadable: null,
  problems: 0,
  setup: 's',
  folder: '',
  updated: '2026-11-01T00:00:00.000Z',
  revision: 'r',
  plan: null,
  summary: null,
  older: false,
  about: null,
  ...more,
});
const plan = { id: 'p', status: 'done', revision: 'r' } as const;
const summary = { seconds: 60, errors: 0, warnings: 2 };
const RACK = [
  entry('Tray', { folder: 'Mill', order: 'OE-9', updated: '2026-11-03T00:00:00.000Z' }),
  entry('Sign', { folder: 'Inn', order: 'OE-10', plan, summary, board: '200 × 90 × 12 mm oak' }),
  entry('Bowl', { plan, summary: { seconds: 500, errors: 1, warnings: 0 }, updated: '2026-11-02T00:00:00.000Z' }),
];
const shown = (by: Partial<Shown>) => onRack(RACK, { text: '', state: 'all', folder: '', order: 'changed', ...by });
const names = (all: RackEntry[]) => all.map((j) => j.name);

test('the state of a job is that of its newest version', () => {
  expect(stateOf(RACK[0])).toBe('todo');
  expect(stateOf(RACK[1])).toBe('ready');
  expect(stateOf(RACK[2])).toBe('wrong');
  expect(stateOf(entry('a', { plan: { ...plan, revision: 'before' }, summary }))).toBe('todo');
  expect(stateOf(entry('a', { plan, summary, older: true }))).toBe('todo');
  // Errors of an older version say nothing of this one; what stops planning does.
  expect(stateOf(entry('a', { plan: { ...plan, revision: 'x' }, summary: { ...summary, errors: 3 } }))).toBe('todo');
  expect(stateOf(entry('a', { problems: 1 }))).toBe('wrong');
  expect(stateOf(entry('a', { unreadable: 'why' }))).toBe('wrong');
});

test('jobs are found by words of their name, order and board, and stand in the order that is asked for', () => {
  expect(names(shown({ text: 'OAK oe', state: 'all', order: 'changed' }))).toEqual(['Sign']);
  expect(names(shown({ text: '', state: 'wrong', order: 'changed' }))).toEqual(['Bowl']);
  expect(names(shown({ text: '', state: 'all', order: 'changed' }))).toEqual(['Tray', 'Bowl', 'Sign']);
  expect(names(shown({ text: '', state: 'all', order: 'name' }))).toEqual(['Bowl', 'Sign', 'Tray']);
  // Numbers in orders count as numbers.
  expect(names(shown({ text: '', state: 'all', order: 'order' }))).toEqual(['Bowl', 'Tray', 'Sign']);
  expect(names(shown({ text: '', state: 'all', order: 'longest' }))).toEqual(['Bowl', 'Sign', 'Tray']);
});

test('jobs lie in folders, are shown by one, and are found by its name', () => {
  expect(foldersOf(RACK)).toEqual(['Inn', 'Mill']);
  expect(names(shown({ folder: 'Mill' }))).toEqual(['Tray']);
  expect(names(shown({ text: 'inn' }))).toEqual(['Sign']);
  expect(shown({ folder: 'gone' })).toEqual([]);
});
