import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Command, MOST_SHOWN, matching } from './commands';

const command = (name: string, group = 'Layer'): Command => ({ id: name, group, name, run() {} });
const names = (all: Command[]) => all.map((c) => c.name);

test('every word is found, in the name or its group, at the beginning of a name first', () => {
  const all = [command('Rope around'), command('Arrange', 'Station'), command('Round plate'), command('Ground')];
  expect(names(matching(all, 'round'))).toEqual(['Round plate', 'Rope around', 'Ground']);
  expect(names(matching(all, 'PLATE round'))).toEqual(['Round plate']);
  expect(names(matching(all, 'station'))).toEqual(['Arrange']);
  expect(names(matching(all, 'station round'))).toEqual([]);
  expect(names(matching(all, ''))).toEqual(names(all));
  // What a search pattern means something by is text like any other.
  expect(names(matching([command('a (b'), command('a.b')], '(b'))).toEqual(['a (b']);
});

test('whatever is found has every word, and nothing that has them is missing (property)', () => {
  const text = fc.stringMatching(/^[a-c ]{0,6}$/);
  fc.assert(
    fc.property(fc.array(text, { maxLength: 30 }), text, (all, wanted) => {
      const words = wanted.split(/\s+/).filter(Boolean);
      const has = (n: string) => words.every((w) => n.includes(w));
      const found = names(
        matching(
          all.map((n) => command(n, '')),
          wanted,
        ),
      );
      expect(found.sort()).toEqual(all.filter(has).sort());
    }),
  );
});

test('no more are shown than can be looked through', () => {
  expect(
    matching(
      Array.from({ length: 500 }, (_, n) => command(`Layer ${n}`)),
      'layer',
    ),
  ).toHaveLength(MOST_SHOWN);
});
