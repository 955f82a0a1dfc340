import { expect, test } from 'vitest';
import { DESKTOP_MACHINE, DRAWER, HOBBY_MACHINE, MACHINES, MATERIALS } from '../doc/defaults';
import type { Library } from '../doc/library';
import { fitsCollet } from '../doc/machine';
import { shopOf } from './new-shop';

const LIBRARY: Library = { machines: MACHINES, cutters: DRAWER, materials: MATERIALS, recipes: [] };
const ALL = DRAWER.map((c) => c.id);

test('a shop with the weak desktop machine begins with bits that fit its 1/8 in collet, and says what it cannot do', () => {
  const { change, begins, misfits, cannot } = shopOf(LIBRARY, DESKTOP_MACHINE.id, ALL);
  expect(DESKTOP_MACHINE).toMatchObject({ x: 300, y: 180, collets: [3.175] });
  expect(begins).toMatchObject({ rough: { name: 'end mill 3.175' }, finish: { name: 'ball 3.175' } });
  for (const c of misfits) expect(fitsCollet(DESKTOP_MACHINE, c)).toBe(false);
  expect(misfits.map((c) => c.name)).toContain('end mill 6.35');
  const said = cannot.join('; ');
  expect(said).toContain('longer than 300 mm or wider than 180 mm');
  expect(said).toMatch(/none of the bits that fit it suits letters/);
  // Nothing is taken out of the drawer but what is not owned; the machine comes first.
  expect(change.remove.cutters).toEqual([]);
  expect(change.order.machines).toEqual([DESKTOP_MACHINE.id]);
});

test('bits that are not owned leave the drawer; without a ball nothing can begin', () => {
  const { change, begins } = shopOf(LIBRARY, HOBBY_MACHINE.id, ['em6', 'v60']);
  expect(change.remove.cutters.sort()).toEqual(ALL.filter((id) => !['em6', 'v60'].includes(id)).sort());
  expect(begins).toBeNull();
  // A V bit that is not owned is missed for letters alone.
  const said = (bits: string[]) => shopOf(LIBRARY, HOBBY_MACHINE.id, bits).cannot.join('; ');
  expect(said(['em6', 'ball3'])).toContain('suits letters');
  expect(said(ALL)).not.toContain('suits');
  expect(() => shopOf(LIBRARY, 'nothing', ALL)).toThrow('the shop has no machine nothing');
});
