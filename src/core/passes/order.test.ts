import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Pass } from '../doc/pass';
import { bitChanges, orderProblem, placeFor } from './order';

/** The order of work, as the trade has it. */
const KINDS: Pass['kind'][] = ['skim', 'rough', 'flat', 'finish', 'letter', 'hole', 'cutout'];
const passes = fc.array(fc.constantFrom(...KINDS), { maxLength: 12 }).map((list) => list.map((kind) => ({ kind })));

test('an order works when no pass comes after one of a later kind, and is refused with both named otherwise (property)', () => {
  fc.assert(
    fc.property(passes, (list) => {
      const ranks = list.map((p) => KINDS.indexOf(p.kind));
      const works = ranks.every((r, i) => i === 0 || r >= Math.max(...ranks.slice(0, i)));
      const problem = orderProblem(list);
      expect(problem === null).toBe(works);
      if (problem) expect(problem).toMatch(/ after .* would /);
    }),
  );
});

test('a new pass put where it belongs never makes a working order fail (property)', () => {
  fc.assert(
    fc.property(passes, fc.constantFrom(...KINDS), (list, kind) => {
      const sorted = [...list].sort((a, b) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind));
      const at = placeFor(sorted, kind);
      const next = [...sorted.slice(0, at), { kind }, ...sorted.slice(at)];
      expect(orderProblem(next)).toBeNull();
      // After all of its own kind.
      expect(next.findLastIndex((p) => p.kind === kind)).toBe(at);
    }),
  );
});

test('bits are changed between passes, not counted', () => {
  const changes = (...bits: string[]) => bitChanges(bits.map((cutter) => ({ cutter })));
  expect(changes()).toBe(0);
  expect(changes('a', 'a')).toBe(0);
  expect(changes('a', 'b', 'c')).toBe(2);
  expect(changes('a', 'b', 'a', 'c')).toBe(3);
});

test('each reason says what would go wrong', () => {
  const said = (...kinds: Pass['kind'][]) => orderProblem(kinds.map((kind) => ({ kind })));
  expect(said('rough', 'skim')).toContain('would take off what is cut already');
  expect(said('finish', 'rough')).toContain('would cut into wood that is finished');
  expect(said('finish', 'flat')).toContain('would find its field already cut by the ball');
  expect(said('letter', 'finish')).toContain('would wear the edges of letters off');
  expect(said('hole', 'letter')).toContain('would be cut over');
  expect(said('cutout', 'hole')).toBe(
    'making holes after the cut-out would work on a piece that hangs by its tabs only',
  );
  expect(said('cutout', 'cutout')).toBeNull();
});
