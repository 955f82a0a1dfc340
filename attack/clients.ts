import type { Verdict } from './say';
import type { AttackedServer } from './server';
import { smallJob } from './small';

/** Twenty clients save one job at once, each on top of what it saw last: every save is either in the line or kept and told. */
export async function clients(server: AttackedServer, count: number, saves: number): Promise<Verdict> {
  await server.start();
  try {
    const made = await server.json<{ id: string; revision: string }>('POST', '/api/jobs', {});
    const { id } = made.body;
    const tally = { saved: 0, told: 0, other: 0 };
    const one = async (n: number) => {
      let base = made.body.revision;
      for (let k = 0; k < saves; k++) {
        const { status, body } = await server.json<{ revision?: string; head?: string }>('PUT', `/api/jobs/${id}`, {
          base,
          document: smallJob(`Client ${n} save ${k}`),
        });
        if (status === 200) tally.saved++;
        else if (status === 409) tally.told++;
        else tally.other++;
        base = body.revision ?? body.head ?? base;
      }
    };
    await Promise.all(Array.from({ length: count }, (_, n) => one(n)));
    const job = (await server.json<{ kept: unknown[] }>('GET', `/api/jobs/${id}`)).body;
    return {
      passed: tally.other === 0 && tally.saved > 0 && job.kept.length === tally.told,
      said: `${count} clients, ${count * saves} saves: ${tally.saved} in the line, ${tally.told} refused and kept (${job.kept.length} there), ${tally.other} other`,
    };
  } finally {
    await server.kill();
  }
}
