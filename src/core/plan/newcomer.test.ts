import bunny from 'bunny';
import { describe, expect, test } from 'vitest';
import { contentLoader } from '../../server/content';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import { textOf } from '../findings/texts/text-of';
import { inspectSource } from '../sources/inspect';
import { writeStl } from '../sources/stl';
import { moth, standing } from './models-test-kit';
import { planWhole } from './plan-test-kit';
import { proposeJob } from './propose';

/** An open model of an animal (the registry's package `bunny`, a scan of the Stanford collection), with gaps that the end mill does not enter. */
function bunnyTriangles(): Float32Array {
  const out = new Float32Array(bunny.cells.length * 9);
  for (const [t, c] of bunny.cells.entries()) {
    for (const [i, v] of c.entries()) out.set(bunny.positions[v], t * 9 + i * 3);
  }
  return out;
}

const MODELS: [string, number, () => Float32Array][] = [
  ['a sitting animal', 70, bunnyTriangles],
  ['a standing animal with narrow gaps between its legs', 60, standing],
  ['a moth with folded wings', 45, moth],
];

describe('a model, a board and two bits, all else as it is proposed', () => {
  test.each(MODELS)(
    '%s, %s mm long, is carved without an error or a warning',
    async (name, x, make) => {
      const triangles = make();
      const job = proposeJob({
        name,
        order: '',
        file: 'model.stl',
        hash: '0'.repeat(64),
        info: inspectSource({ mesh: { triangles }, notes: [] }),
        machine: SHOP_MACHINE,
        rough: DRAWER.find((c) => c.id === 'em6')!,
        finish: DRAWER.find((c) => c.id === 'ball3')!,
        size: { x },
      });
      const { summary } = await planWhole(
        job,
        contentLoader(() => writeStl(triangles, 'model')),
      );
      const wrong = summary.findings.filter((f) => f.severity !== 'note');
      expect(wrong.map((f) => `${textOf(f).message} ${JSON.stringify(f.place)}`)).toEqual([]);
    },
    120_000,
  );
});
