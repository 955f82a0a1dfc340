import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { addPass } from '../passes/add-pass';
import { drawerBit, plainSetup, planShapes } from './plan-test-kit';

const BOARD = { x: 60, y: 40, thickness: 15, material: materialNamed('maple') };
const vee = DRAWER.find((c) => c.shape === 'v')!;

// A blunt tip leaves the board where its flat no longer fits into a corner: there its depth bends, and a straight move between two places
// of its path lies lower than the tip may. Cells whose middles lie right at the corner show it.
test.each([0.1, 0.2])(
  'a V groove cuts nothing of the board beside it, cells of %s mm with one right at its corner',
  async (cell) => {
    const view = plainSetup({
      name: 'Corners',
      order: '',
      machine: HOBBY_MACHINE,
      rough: drawerBit('em6'),
      finish: drawerBit('ball3'),
      board: BOARD,
    });
    view.cell = cell;
    const layer = newShape(
      { id: 'groove', name: 'Groove' },
      { kind: 'rectangle' },
      { kind: 'vee', angle: vee.includedAngle },
      BOARD,
    );
    // Its sides on the middles of cells.
    view.layers = [
      { ...layer, size: { x: 30, y: 5 }, centre: { x: 30 + cell / 2, y: 20 + cell / 2 }, rise: 6, join: 'carve' },
    ];
    view.seat = { ...view.seat, mode: 'sunk' };
    view.passes.length = 0;
    applyEdits(view.document, addPass(view, 'letter', structuredClone(vee)));
    const { summary, cut } = await planShapes(view);
    expect(summary.findings.filter((f) => f.severity === 'error')).toEqual([]);
    let low = 0;
    for (let k = 0; k < cut.data.length; k++) {
      const [x, y] = [cut.originX + (k % cut.width) * cell, cut.originY + Math.floor(k / cut.width) * cell];
      const outside = Math.abs(x - 30 - cell / 2) >= 15 - 1e-6 || Math.abs(y - 20 - cell / 2) >= 2.5 - 1e-6;
      if (outside) low = Math.min(low, cut.data[k]);
    }
    expect(low).toBeGreaterThan(-1e-4);
  },
);
