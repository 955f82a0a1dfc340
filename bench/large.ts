import { spawnSync } from 'node:child_process';
import { newShape } from '../src/core/arrange/new-layer';
import { DRAWER, materialNamed, SHOP_MACHINE } from '../src/core/doc/defaults';
import { planJob } from '../src/core/plan/pipeline';
import { plainSetup, shapesOnly } from '../src/core/plan/plan-test-kit';
import { KernelPool } from '../src/server/kernel-pool';
import { row } from './row';

/** A board and the dome on it, mm along x and y. */
interface Large {
  board: [number, number];
  dome: [number, number];
}

async function planned({ board: [x, y], dome }: Large) {
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
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
      size: { x: dome[0], y: dome[1] },
      centre: { x: x / 2, y: y / 2 },
      rise: 20,
    },
  ];
  for (const p of view.passes) if (p.kind === 'finish') p.stepover = 0.8;
  const host = new KernelPool();
  try {
    const plan = await planJob(view.document, shapesOnly, {
      host,
      progress() {},
      stage: async (name, _, run) => ({ key: name, result: await run() }),
    });
    return plan.summary;
  } finally {
    await host.close();
  }
}

/** The large board in a process of its own, so that its memory is its own. */
export function startLarge(): void {
  spawnSync(process.execPath, ['--import', 'tsx', 'bench/main.ts', '--large'], { stdio: 'inherit' });
}

/** A dome on a board of 1200 x 600 mm at the cell that a ball of 3.175 mm asks for: how long, how much memory, and what the proof finds. */
export async function benchLarge(): Promise<void> {
  const from = Date.now();
  const { setups, findings } = await planned({ board: [1200, 600], dome: [1100, 550] });
  const { width, height, cell } = setups[0].grid;
  const seconds = (Date.now() - from) / 1000;
  row('1200 x 600 mm: cells, million, of mm', `${((width * height) / 1e6).toFixed(1)}, ${cell}`);
  row(
    '  layers to proof, s; a million cells, s',
    `${seconds.toFixed(0)}; ${((seconds * 1e6) / (width * height)).toFixed(2)}`,
  );
  row('  peak memory, GB', (process.resourceUsage().maxRSS / 1e6).toFixed(2));
  row('  findings', findings.map((f) => f.rule).join(', ') || 'none');
}
