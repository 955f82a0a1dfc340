import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import Libsql from 'libsql';
import type { Verdict } from './say';
import type { AttackedServer } from './server';
import { smallJob, smallModel } from './small';

interface Acknowledged {
  /** The last name of each job that the server said is saved. */
  jobs: Map<string, { revision: string; name: string }>;
  hashes: Set<string>;
}

/** Saves, uploads and plans until the server is gone; notes only what was acknowledged. */
async function work(server: AttackedServer, seen: Acknowledged, round: number): Promise<void> {
  const done = async <T>(what: Promise<T>): Promise<T | null> => what.catch(() => null);
  const loop = async (kind: number) => {
    for (let n = 0; n < 200; n++) {
      if (kind === 0) {
        const made = await done(server.json<{ id: string; revision: string }>('POST', '/api/jobs', {}));
        if (!made) return;
        if (made.status !== 200) continue;
        const name = `Job ${round}-${n}`;
        const saved = await done(
          server.json<{ revision: string }>('PUT', `/api/jobs/${made.body.id}`, {
            base: made.body.revision,
            document: smallJob(name, 2 + (n % 5) / 10),
          }),
        );
        if (!saved) return;
        if (saved.status === 200) seen.jobs.set(made.body.id, { revision: saved.body.revision, name });
      } else if (kind === 1) {
        const put = await done(server.put(`model-${round}-${n}.stl`, smallModel(round * 100 + n)));
        if (!put) return;
        if (put.status === 200 && put.body.hash) seen.hashes.add(put.body.hash);
      } else {
        const [id] = [...seen.jobs.keys()].slice(-1);
        if (id && !(await done(server.json('POST', `/api/jobs/${id}/plan`)))) return;
        await new Promise((r) => setTimeout(r, 20));
      }
    }
  };
  await Promise.all([loop(0), loop(1), loop(2)]);
}

/** What of the acknowledged is not there any more. */
async function missing(server: AttackedServer, seen: Acknowledged): Promise<string[]> {
  const out: string[] = [];
  for (const [id, { name }] of seen.jobs) {
    const { status, body } = await server.json<{ document?: { name: string } }>('GET', `/api/jobs/${id}`);
    if (status !== 200 || body.document?.name !== name) out.push(`job ${id}`);
  }
  for (const hash of seen.hashes) {
    const { status } = await server.json('GET', `/api/assets/${hash}`);
    const bytes = readFileSync(path.join(server.data, 'assets', hash));
    if (status !== 200 || createHash('sha256').update(bytes).digest('hex') !== hash) out.push(`file ${hash}`);
  }
  return out;
}

function databaseFaults(data: string): string[] {
  const db = new Libsql(path.join(data, 'zealous-grain.sqlite'));
  try {
    const whole = db.prepare('pragma integrity_check').all() as { integrity_check: string }[];
    const keys = db.prepare('pragma foreign_key_check').all();
    return [...whole.map((r) => r.integrity_check).filter((t) => t !== 'ok'), ...keys.map((k) => JSON.stringify(k))];
  } finally {
    db.close();
  }
}

/**
 * Kills with -9 in the midst of saves, uploads and plans: nothing that was acknowledged is lost, integrity and foreign keys hold. It is
 * an attack only when enough was acknowledged: more than a save a kill, and an upload every fifth.
 */
export async function kills(server: AttackedServer, times: number): Promise<Verdict> {
  const seen: Acknowledged = { jobs: new Map(), hashes: new Set() };
  let lost: string[] = [];
  for (let round = 0; round < times && lost.length === 0; round++) {
    await server.start();
    const working = work(server, seen, round);
    await new Promise((r) => setTimeout(r, 300 + ((round * 197) % 2100)));
    await server.kill();
    await working;
    lost = databaseFaults(server.data);
    if (lost.length > 0 || round % 5 !== 4) continue;
    await server.start();
    lost = await missing(server, seen).finally(() => server.kill());
  }
  return {
    passed: lost.length === 0 && seen.jobs.size > times && seen.hashes.size >= times / 5,
    said: `${times} kills; ${seen.jobs.size} saves and ${seen.hashes.size} uploads acknowledged; lost: ${lost.join(', ') || 'nothing'}`,
  };
}
