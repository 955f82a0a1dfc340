import { expect, test } from 'vitest';
import { DRAWER } from './defaults';
import { DrawerError, drawerFromCsv, drawerToCsv } from './drawer-csv';

test('a drawer written as a table comes back as it was, quotes, commas and line ends in names as well', () => {
  const odd = { ...DRAWER[0], id: 'odd', name: 'end mill, 1/4", long', price: 12.5 };
  const text = drawerToCsv([...DRAWER, odd]);
  expect(drawerFromCsv(text)).toEqual([...DRAWER, odd]);
  // As spreadsheets write it: a byte order mark, other line ends, an empty last row.
  expect(drawerFromCsv(`\uFEFF${text.replace(/\n/g, '\r\n')}\r\n`)).toEqual([...DRAWER, odd]);
  // RFC 4180, sections 2.5 to 2.7: a field with commas or quotes stands in quotes, a quote within it is doubled.
  expect(text).toContain('"end mill, 1/4"", long"');
  expect(text.split('\n')[0]).toContain('diameter mm,');
});

test('what a person has found in materials goes out and comes back, and a table from before it is taken', () => {
  const found = { ...DRAWER[0], feeds: [{ material: 'oak; 2 %', feed: 1400.5, plunge: 400, rpm: 16000 }] };
  const text = drawerToCsv([found, DRAWER[1]]);
  expect(drawerFromCsv(text)).toEqual([found, DRAWER[1]]);
  const before = text
    .trim()
    .split('\n')
    .map((l) => l.slice(0, l.lastIndexOf(',')))
    .join('\n');
  expect(drawerFromCsv(before)).toEqual([DRAWER[0], DRAWER[1]]);
});

test('columns may stand in any order, and others beside them are left out', () => {
  const [head, first] = drawerToCsv(DRAWER.slice(0, 1)).trim().split('\n');
  const turned = [head, first].map((l) => `${l.split(',').reverse().join(',')},mine`).join('\n');
  expect(drawerFromCsv(turned)).toEqual(DRAWER.slice(0, 1));
});

test.each([
  ['a diameter of nothing', (t: string) => t.replace(',6.35,', ',0,'), 'row 2: diameter mm of 0 is too small'],
  ['a word for a number', (t: string) => t.replace(',6.35,', ',wide,'), 'row 2: diameter mm is "wide"'],
  [
    'a shape that is none',
    (t: string) => t.replace(',endmill,', ',square,'),
    'row 2: shape is "square"; choose one of',
  ],
  ['a column that is gone', (t: string) => t.replace('flutes,', 'teeth,'), 'no column "flutes"'],
  ['an id twice', (t: string) => `${t}${t.split('\n')[1]}\n`, 'is that of row 2 already'],
  [
    'feeds that cannot be read',
    (t: string) => t.replace(/,\n/, ',"oak fast; pine 1/2 at 3"\n'),
    'row 2: own feeds is "oak fast; pine 1/2 at 3"; write each material once',
  ],
  [
    'one material twice',
    (t: string) => t.replace(/,\n/, ',oak 1/2 at 3;oak 4/5 at 6\n'),
    'row 2: own feeds is "oak 1/2 at 3;oak 4/5 at 6"',
  ],
  ['a quote that never ends', (t: string) => t.replace(',6.35,', ',"6.35,'), 'row'],
])('%s is refused by its row and column', (_, spoil, said) => {
  const text = drawerToCsv(DRAWER.slice(0, 2));
  const bad = spoil(text);
  expect(bad).not.toBe(text);
  expect(() => drawerFromCsv(bad)).toThrow(DrawerError);
  expect(() => drawerFromCsv(bad)).toThrow(said);
});
