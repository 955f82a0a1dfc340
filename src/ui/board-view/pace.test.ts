import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Pace } from './pace';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

test('what waits is drawn with the next picture, the newest of each name, and once', () => {
  const pace = new Pace();
  const drawn: string[] = [];
  pace.put('layers', () => drawn.push('first'));
  pace.put('layers', () => drawn.push('second'));
  expect(drawn).toEqual([]);
  pace.flush();
  vi.advanceTimersByTime(1000);
  pace.flush();
  expect(drawn).toEqual(['second']);
});

test('a picture that is late keeps nothing waiting', () => {
  const pace = new Pace();
  const drawn: string[] = [];
  pace.put('layers', () => drawn.push('layers'));
  vi.advanceTimersByTime(60);
  pace.put('layers', () => drawn.push('newer'));
  vi.advanceTimersByTime(4);
  expect(drawn).toEqual(['newer']);
});

test('what joins is drawn with what waits, and at once where nothing does', () => {
  const pace = new Pace();
  const drawn: string[] = [];
  pace.join('pointer', () => drawn.push('alone'));
  expect(drawn).toEqual(['alone']);
  pace.put('layers', () => drawn.push('layers'));
  pace.join('pointer', () => drawn.push('pointer'));
  expect(drawn).toEqual(['alone']);
  pace.flush();
  expect(drawn).toEqual(['alone', 'layers', 'pointer']);
});

test('what is dropped is not drawn, and what joined it still is', () => {
  const pace = new Pace();
  const drawn: string[] = [];
  pace.put('layers', () => drawn.push('layers'));
  pace.join('pointer', () => drawn.push('pointer'));
  pace.drop('layers');
  vi.advanceTimersByTime(1000);
  expect(drawn).toEqual(['pointer']);
});

test('what is drawn may have more drawn with the next picture', () => {
  const pace = new Pace();
  const drawn: string[] = [];
  pace.put('layers', () => pace.put('layers', () => drawn.push('next')));
  pace.flush();
  expect(drawn).toEqual([]);
  vi.advanceTimersByTime(64);
  expect(drawn).toEqual(['next']);
});
