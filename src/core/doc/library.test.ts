import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DRAWER, MACHINES, MATERIALS } from './defaults';
import {
  freeNumber,
  freshId,
  inverseOf,
  type Library,
  type LibraryChange,
  librarySchema,
  noChange,
  SHELVES,
} from './library';

const start = (): Library =>
  structuredClone({ machines: MACHINES, cutters: DRAWER, materials: MATERIALS, recipes: [] });

/** What a change makes of a library, plainly. */
function changed(library: Library, { put, remove, order }: LibraryChange): Library {
  const out = structuredClone(library);
  for (const shelf of SHELVES) {
    const left = new Map(out[shelf].map((t) => [t.id, t as { id: string }]));
    for (const id of remove[shelf]) left.delete(id);
    for (const t of put[shelf]) left.set(t.id, t);
    const named = order[shelf].filter((id) => left.has(id));
    const rest = [...left.keys()].filter((id) => !named.includes(id));
    Object.assign(out, { [shelf]: [...named, ...rest].map((id) => left.get(id)) });
  }
  return out;
}
test('every change is undone by its inverse, whatever was put in, changed or taken away (property)', () => {
  const pick = fc.subarray(DRAWER.map((c) => c.id));
  fc.assert(
    fc.property(pick, pick, fc.integer({ min: 0, max: 3 }), (gone, touched, added) => {
      const library = start();
      const change = noChange();
      change.remove.cutters = gone;
      change.put.cutters = [
        ...DRAWER.filter((c) => touched.includes(c.id)).map((c) => ({ ...c, feed: c.feed + 1 })),
        ...Array.from({ length: added }, (_, n) => ({ ...DRAWER[0], id: `new ${n}` })),
      ];
      change.put.materials = [{ ...MATERIALS[0], name: 'another' }];
      change.remove.machines = [MACHINES[1].id];
      change.order.machines = [MACHINES[2].id];
      const after = changed(library, change);
      expect(after).not.toEqual(library);
      expect(changed(after, inverseOf(library, change))).toEqual(library);
    }),
  );
});

test('a new thing gets an id and a number that no other has', () => {
  expect(freshId([], 'End mill 6')).toBe('end-mill-6');
  expect(freshId([{ id: 'end-mill-6' }, { id: 'end-mill-6-2' }], 'End mill 6')).toBe('end-mill-6-3');
  expect(freshId([], '///')).toBe('new');
  expect(freeNumber([{ number: 1 }, { number: 2 }, { number: 4 }])).toBe(3);
});

test('what a new shop holds is what the schemas take, with ids of their own', () => {
  const library = start();
  expect(librarySchema.parse(library)).toEqual(library);
  for (const shelf of SHELVES) expect(new Set(library[shelf].map((t) => t.id)).size).toBe(library[shelf].length);
});
