import bunny from 'bunny';
import { test } from 'vitest';
import { moth } from './models-test-kit';
import { expectCarved } from './newcomer-test-kit';

/** An open model of an animal (the registry's package `bunny`, a scan of the Stanford collection), with gaps that the end mill does not enter. */
function bunnyTriangles(): Float32Array {
  const out = new Float32Array(bunny.cells.length * 9);
  for (const [t, c] of bunny.cells.entries()) {
    for (const [i, v] of c.entries()) out.set(bunny.positions[v], t * 9 + i * 3);
  }
  return out;
}

test('a sitting animal, 70 mm long, is carved without an error or a warning', async () => {
  await expectCarved('A sitting animal', 70, bunnyTriangles());
});

test('a moth with folded wings, 45 mm long, is carved without an error or a warning', async () => {
  await expectCarved('A moth', 45, moth());
});
