import { readFileSync } from 'node:fs';
import { afterEach, expect, test } from 'vitest';
import { sayIn } from '../units/say';
import type { Finding } from './finding';
import { FIX_LABELS } from './texts/fixes';
import { KNOWN_RULES, textOf } from './texts/text-of';

/** The rows of the tables of docs/findings.md: the rules, and what mends them. */
const rows = readFileSync('docs/findings.md', 'utf8')
  .split('\n')
  .filter((l) => l.startsWith('| `'))
  .map((l) => {
    const [, rules, , fixes] = l.split('|');
    const named = (s: string) => [...s.matchAll(/`([a-z-]+)`/g)].map((m) => m[1]);
    return { rules: named(rules), fixes: named(fixes), said: fixes };
  });

test('every rule has one row in docs/findings.md, and each row names rules that there are', () => {
  expect(rows.flatMap((r) => r.rules).sort()).toEqual([...KNOWN_RULES].sort());
});

test('every row names fixes that there are, or says why there is none; every fix stands in one', () => {
  for (const { rules, fixes, said } of rows) {
    const known = fixes.filter((f) => f in FIX_LABELS);
    expect(
      fixes.filter((f) => !(f in FIX_LABELS) && !KNOWN_RULES.includes(f)),
      rules[0],
    ).toEqual([]);
    if (known.length === 0) expect(said, rules[0]).toMatch(/None:/);
  }
  const told = new Set(rows.flatMap((r) => r.fixes));
  expect(Object.keys(FIX_LABELS).filter((f) => !told.has(f))).toEqual([]);
});

afterEach(() => sayIn('mm'));

test('what is told of a finding is told in the unit that its reader has chosen', () => {
  const found = { rule: 'gouge', subject: {}, figures: { deep: 0.254, most: 0.0508 } } as unknown as Finding;
  expect(textOf(found).message).toContain('cut 0.254 mm too deep, more than 0.05 mm');
  sayIn('in');
  expect(textOf(found).message).toContain('cut 0.01 in too deep, more than 0.002 in');
});
