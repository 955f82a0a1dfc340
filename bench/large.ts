import { spawnSync } from 'node:child_process';
import { newShape } from '../src/core/arrange/new-layer';
import { DRAWER, materialNamed, SHOP_MACHINE } from '../src/core/doc/defaults';
import { planJob } from '../src/core/plan/pipeline';
import { plainSetup, shapesOnly } from '../src/core/plan/plan-test-kit';
import { cellsOf, plotsOf } from '../src/core/plan/plots';
import { KernelPool } from '../src/server/kernel-pool';
import { row } from './row';

/** A board and the domes on it: their size and their middles, mm along x and y. */
interface Large {
  board: [number, number];
  dome: [number, number];
  at: [number, number][];
}

/** What is planned, by its name on the command line. */
const BOARDS: Record<string, Large> = {
  'one relief': { board: [1200, 600], dome: [1100, 550], at: [[600, 300]] },
  'four reliefs': {
    board: [2400, 1200],
    dome: [420, 300],
    at: [
      [500, 300],
      [1900, 300],
      [500, 900],
      [1900, 900],
    ],
  },
};

async function planned({ board: [x, y], dome, at }: Large) {
  const bit = (id: string) => structuredClone(DRAWER.find((c) => c.id === id)!);
  const board = { x, y, thickness: 30, material: materialNamed('maple') };
  const view = plainSetup({
    name: 'Large',
    order: '',
    machine: SHOP_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    board,
  });
  view.layers = at.map(([cx, cy], i) => ({
    ...newShape({ id: `dome${i}`, name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
    size: { x: dome[0], y: dome[1] },
    centre: { x: cx, y: cy },
    rise: 20,
  }));
  for (const p of view.passes) if (p.kind === 'finish') p.stepover = 0.8;
  const host = new KernelPool();
  try {
    const plan = await planJob(view.document, shapesOnly, {
      host,
      threads: host,
      progress() {},
      stage: async (name, _, run) => ({ key: name, result: await run() }),
    });
    return { ...plan.summary, cells: cellsOf(plotsOf(view.document, view.board)) };
  } finally {
    await host.close();
  }
}

/** The large boards, each in a process of its own, so that its memory is its own. */
export function startLarge(): void {
  for (const name of Object.keys(BOARDS))
    spawnSync(process.execPath, ['--import', 'tsx', 'bench/main.ts', '--large', name], { stdio: 'inherit' });
}

/** Domes on a large board at the cell that a ball of 3.175 mm asks for: how long, how much memory, and what the proof finds. */
export async function benchLarge(name = 'one relief'): Promise<void> {
  const from = Date.now();
  const large = BOARDS[name];
  const { setups, findings, cells } = await planned(large);
  const seconds = (Date.now() - from) / 1000;
  row(
    `${large.board.join(' x ')} mm, ${name}: cells, million, of mm`,
    `${(cells / 1e6).toFixed(1)}, ${setups[0].eye.cell}`,
  );
  row('  layers to proof, s; a million cells, s', `${seconds.toFixed(0)}; ${((seconds * 1e6) / cells).toFixed(2)}`);
  row('  peak memory, GB', (process.resourceUsage().maxRSS / 1e6).toFixed(2));
  row('  findings', findings.map((f) => f.rule).join(', ') || 'none');
}
