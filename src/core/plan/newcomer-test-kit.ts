import { expect } from 'vitest';
import { contentLoader } from '../../server/content';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import { textOf } from '../findings/texts/text-of';
import { inspectSource } from '../sources/inspect';
import { writeStl } from '../sources/stl';
import { planWhole } from './plan-test-kit';
import { proposeJob } from './propose';

/** A model, a board and two bits, all else as it is proposed: carved without an error or a warning. @param x its length, mm */
export async function expectCarved(name: string, x: number, triangles: Float32Array): Promise<void> {
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
}
