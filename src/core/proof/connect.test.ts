import { expect, test } from 'vitest';
import { boardGrid, makeField } from '../field/height-field';
import { checkCutout } from './connect';

/** A board of 60 x 40 x 10 with a slot 4 mm wide around a rectangle of 30 x 20, cut through. */
function slotted() {
  const cut = makeField(boardGrid(60, 40, 0.2), 0);
  const slots = new Uint8Array(cut.data.length);
  for (let k = 0; k < slots.length; k++) {
    const x = cut.originX + (k % cut.width) * 0.2 - 30;
    const y = cut.originY + Math.floor(k / cut.width) * 0.2 - 20;
    const d = Math.max(Math.abs(x) - 15, Math.abs(y) - 10);
    if (d <= 0 || d > 4) continue;
    slots[k] = 1;
    cut.data[k] = -10.5;
  }
  const ring = [13, 8, 47, 8, 47, 32, 13, 32];
  return { cut, slots, planned: { rings: [ring], tabs: [] as { x: number; y: number }[], reach: 5, radius: 2 } };
}
/** Raises the floor of the slot to `z` in a box. */
function stand(s: ReturnType<typeof slotted>, x0: number, x1: number, y0: number, y1: number, z: number) {
  const { cut } = s;
  for (let k = 0; k < cut.data.length; k++) {
    const x = cut.originX + (k % cut.width) * 0.2;
    const y = cut.originY + Math.floor(k / cut.width) * 0.2;
    if (x > x0 && x < x1 && y > y0 && y < y1 && cut.data[k] < z) cut.data[k] = z;
  }
}

test('a slot that is cut through leaves nothing joined; wood across it is found where it stands', () => {
  const s = slotted();
  expect(checkCutout(s.cut, s.slots, 10, s.planned).joined).toBeNull();
  // A wall that does not reach across joins nothing; one of a hundredth of a millimetre that does is found.
  stand(s, 20, 22, 6, 9, -9);
  expect(checkCutout(s.cut, s.slots, 10, s.planned).joined).toBeNull();
  stand(s, 30, 31, 5, 11, -9.99);
  const { joined } = checkCutout(s.cut, s.slots, 10, s.planned);
  expect(joined!.x).toBeCloseTo(30.5, 0);
  expect(joined!.y).toBeLessThan(10.2);
});

test('tabs are left out of it and measured', () => {
  const s = slotted();
  stand(s, 25, 35, 5, 11, -6);
  s.planned.tabs = [{ x: 30, y: 8 }];
  const { joined, tabs } = checkCutout(s.cut, s.slots, 10, s.planned);
  expect(joined).toBeNull();
  expect(tabs[0].thickness).toBeCloseTo(4, 5);
  expect(Math.abs(tabs[0].length - 10)).toBeLessThan(0.3);
  expect(Math.abs(tabs[0].section - 40)).toBeLessThan(1.5);
  expect(tabs[0].holds).toBe(true);
});

test('a tab beside the board’s edge holds nothing', () => {
  const s = slotted();
  // The frame is gone along one side.
  stand(s, 25, 35, 5, 11, -6);
  const { cut } = s;
  for (let k = 0; k < cut.data.length; k++) if (cut.originY + Math.floor(k / cut.width) * 0.2 < 6) cut.data[k] = -10.5;
  s.planned.tabs = [
    { x: 30, y: 8 },
    { x: 30, y: 32 },
  ];
  const { tabs } = checkCutout(cut, s.slots, 10, s.planned);
  expect(tabs.map((t) => t.holds)).toEqual([false, true]);
});
