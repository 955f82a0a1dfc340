import { expect, test } from 'vitest';
import type { RackEntry } from '@/contract/jobs';
import { onRack, stateOf } from './rack-order';

const entry = (name: string, more: Partial<RackEntry> = {}): RackEntry => ({
  id: name,
  name,
  order: '',
  board: '300 × 200 × 19 mm maple',
  unreadable: null,
  problems: 0,
  setup: 's',
  updated: '2026-11-01T00:00:00.000Z',
  revision: 'r',
  plan: null,
  summary: null,
  older: false,
  ...more,
});
const plan = { id: 'p', status: 'done', revision: 'r' } as const;
const summary = { seconds: 60, errors: 0, warnings: 2 };
const RACK = [
  entry('Tray', { order: 'OE-9', updated: '2026-11-03T00:00:00.000Z' }),
  entry('Sign', { order: 'OE-10', plan, summary, board: '200 × 90 × 12 mm oak' }),
  entry('Bowl', { plan, summary: { seconds: 500, errors: 1, warnings: 0 }, updated: '2026-11-02T00:00:00.000Z' }),
];
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
  expect(names(onRack(RACK, 'OAK oe', 'all', 'changed'))).toEqual(['Sign']);
  expect(names(onRack(RACK, '', 'wrong', 'changed'))).toEqual(['Bowl']);
  expect(names(onRack(RACK, '', 'all', 'changed'))).toEqual(['Tray', 'Bowl', 'Sign']);
  expect(names(onRack(RACK, '', 'all', 'name'))).toEqual(['Bowl', 'Sign', 'Tray']);
  // Numbers in orders count as numbers.
  expect(names(onRack(RACK, '', 'all', 'order'))).toEqual(['Bowl', 'Tray', 'Sign']);
  expect(names(onRack(RACK, '', 'all', 'longest'))).toEqual(['Bowl', 'Sign', 'Tray']);
});
