import { expect } from 'vitest';
import { withEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import type { Finding } from '../findings/finding';
import { labelOf, textOf } from '../findings/texts/text-of';
import type { SetupView } from '../setup/view';
import { IN_DOCUMENT } from './fix-document-test-kit';
import type { Scene } from './fix-jobs-test-kit';

import { files } from './fix-jobs-test-kit';
import { IN_PLANNING } from './fix-planning-test-kit';
import { IN_PROOF } from './fix-proof-test-kit';
import { others, planWhole } from './plan-test-kit';
import { problems } from './problems';

/** Every way in which a rule with fixes comes about. */
export const SCENES: Scene[] = [...IN_DOCUMENT, ...IN_PLANNING, ...IN_PROOF];

/** All that is said of a document: what stops planning, else what planning finds. */
async function saidOf(job: Job): Promise<Finding[]> {
  const wrong = problems(job);
  if (wrong.some((f) => f.stops)) return wrong;
  return (await planWhole(job, files)).summary.findings;
}
const errors = (list: Finding[]) =>
  others(list)
    .filter((f) => f.severity === 'error')
    .map((f) => f.rule);

/** Every fix that is offered in a scene mends what it is offered for, and breaks nothing. Returns the fixes, by their ids. */
export async function expectMended(rule: string, make: () => SetupView): Promise<string[]> {
  const { document } = make();
  const before = await saidOf(document);
  const found = before.filter((f) => f.rule === rule && f.fixes.length > 0);
  expect(before.map((f) => f.rule)).toContain(rule);
  expect(found.length, `${rule} has no fix: ${JSON.stringify(before.filter((f) => f.rule === rule))}`).toBeGreaterThan(
    0,
  );
  const [f] = found;
  expect(textOf(f).message).not.toContain('undefined');
  for (const fix of f.fixes) {
    expect(labelOf(fix)).not.toContain('undefined');
    const after = await saidOf(withEdits(document, fix.edits));
    expect(
      after.map((g) => g.id),
      `after ${fix.id}`,
    ).not.toContain(f.id);
    const fresh = errors(after).filter((r) => !errors(before).includes(r));
    expect(fresh, `new errors after ${fix.id}: ${JSON.stringify(after.filter((g) => fresh.includes(g.rule)))}`).toEqual(
      [],
    );
  }
  return f.fixes.map((fix) => fix.id);
}
