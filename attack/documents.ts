import type { Verdict } from './say';
import type { AttackedServer } from './server';
import { smallJob } from './small';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** A generator of its own, so that a run can be had again. */
function random(seed: number): () => number {
  let s = seed;
  return () => {
    s = (s * 1664525 + 1013904223) >>> 0;
    return s / 2 ** 32;
  };
}

const WRONG: Json[] = [
  null,
  true,
  -1,
  0,
  1e-12,
  1e300,
  '',
  'x'.repeat(500),
  '../../etc/passwd',
  '\u0000',
  [],
  {},
  [[[[1]]]],
  { kind: 'unknown' },
];

/** All places of a document. */
function places(v: Json, at: (string | number)[] = []): (string | number)[][] {
  const own = at.length > 0 ? [at] : [];
  if (Array.isArray(v)) return [...own, ...v.flatMap((e, i) => places(e, [...at, i]))];
  if (typeof v === 'object' && v !== null)
    return [...own, ...Object.entries(v).flatMap(([k, e]) => places(e, [...at, k]))];
  return own;
}

function mutated(base: Json, rand: () => number): Json {
  const doc = structuredClone(base);
  const all = places(doc);
  for (let n = 1 + Math.floor(rand() * 2); n > 0; n--) {
    const at = all[Math.floor(rand() * all.length)];
    // biome-ignore lint/suspicious/noExplicitAny: any place of any document
    let owner: any = doc;
    for (const key of at.slice(0, -1)) owner = owner?.[key];
    const last = at[at.length - 1];
    if (typeof owner !== 'object' || owner === null) continue;
    if (rand() < 0.2) delete owner[last];
    else owner[last] = WRONG[Math.floor(rand() * WRONG.length)];
  }
  return doc;
}

/** Documents with a value or two wrong: no 500, and every refusal names its field. */
export async function documents(server: AttackedServer, count: number): Promise<Verdict> {
  const rand = random(7);
  const base = smallJob('Mutated') as unknown as Json;
  const faults: string[] = [];
  const tally = { saved: 0, refused: 0 };
  await server.start();
  try {
    for (let i = 0; i < count; i++) {
      const made = await server.json<{ id: string; revision: string }>('POST', '/api/jobs', {});
      const document = mutated(base, rand);
      const { status, body } = await server.json<{ error?: string }>('PUT', `/api/jobs/${made.body.id}`, {
        base: made.body.revision,
        document,
      });
      if (status === 200) {
        tally.saved++;
        const plan = await server.json<{ error?: string; id?: string }>('POST', `/api/jobs/${made.body.id}/plan`);
        if (plan.status >= 500) faults.push(`plan ${plan.status}: ${JSON.stringify(document).slice(0, 120)}`);
        if (plan.body.id) await server.json('DELETE', `/api/plans/${plan.body.id}`);
      } else {
        tally.refused++;
        const said = body.error ?? '';
        if (status >= 500 || !/ is | of | does not go|holds|must be/.test(said)) faults.push(`${status}: ${said}`);
      }
    }
    if (!(await server.answers())) faults.push('the server is gone');
  } finally {
    await server.kill();
  }
  return {
    passed: faults.length === 0 && tally.refused > 0 && tally.saved > 0,
    said: `${count} documents, ${tally.saved} kept with what is wrong told, ${tally.refused} refused; faults: ${faults.slice(0, 3).join(' | ') || 'none'}`,
  };
}
