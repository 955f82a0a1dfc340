import { spawnSync } from 'node:child_process';
import { mkdirSync, statfsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Verdict } from './say';
import { AttackedServer } from './server';
import { smallJob, smallModel } from './small';

const SIZE = '60m';
const MORE = '400m';

/** Fills what is left of a disk, but for so many bytes. */
function fill(folder: string, leave: number): void {
  const { bavail, bsize } = statfsSync(folder);
  const bytes = Math.max(0, bavail * bsize - leave);
  writeFileSync(path.join(folder, `ballast-${leave}`), Buffer.alloc(bytes));
}

/** Inside a mount of its own: the shop on a small disk that fills up, and is made larger. */
export async function insideFullDisk(mount: string): Promise<void> {
  const server = new AttackedServer(path.join(mount, 'shop'), 4189);
  mkdirSync(server.data);
  await server.start();
  const said: string[] = [];
  const wrong: string[] = [];
  const expect = (what: boolean, why: string) => {
    if (!what) wrong.push(why);
  };
  try {
    const made = await server.json<{ id: string; revision: string }>('POST', '/api/jobs', {});
    const { id } = made.body;
    const first = await server.json<{ revision: string }>('PUT', `/api/jobs/${id}`, {
      base: made.body.revision,
      document: smallJob('Before'),
    });
    expect(first.status === 200, `first save ${first.status}`);
    fill(mount, 60_000);
    const upload = await server.put('model.stl', smallModel(1));
    said.push(`upload ${upload.status}`);
    expect(upload.status === 507 && /is full/.test(upload.body.error ?? ''), `upload: ${JSON.stringify(upload.body)}`);
    const plan = await server.json<{ id?: string; error?: string }>('POST', `/api/jobs/${id}/plan`);
    let state = { status: String(plan.status), message: plan.body.error ?? '' };
    for (let i = 0; i < 600 && plan.body.id; i++) {
      state = (await server.json<typeof state>('GET', `/api/plans/${plan.body.id}`)).body;
      if (state.status !== 'queued' && state.status !== 'running') break;
      await sleep(50);
    }
    said.push(`plan ${state.status}`);
    expect(/is full/.test(state.message ?? ''), `plan: ${JSON.stringify(state)}`);
    fill(mount, 0);
    let save = { status: 200, body: {} as { error?: string; revision?: string } };
    for (let i = 0; i < 40 && save.status === 200; i++) save = await server.json('POST', '/api/jobs', {});
    said.push(`save ${save.status}`);
    expect(
      save.status === 507 && /is full/.test(save.body.error ?? ''),
      `save: ${JSON.stringify(save.body).slice(0, 200)}`,
    );
    const there = await server.json<{ document: { name: string } }>('GET', `/api/jobs/${id}`);
    expect(there.body.document?.name === 'Before', 'the saved job is not there');
    const r = spawnSync('mount', ['-o', `remount,size=${MORE}`, mount]);
    expect(r.status === 0, 'the disk could not be made larger');
    const again = await server.json<{ id?: string }>('POST', `/api/jobs/${id}/plan`);
    let status = '';
    for (let i = 0; i < 600 && again.body.id; i++) {
      status = (await server.json<{ status: string }>('GET', `/api/plans/${again.body.id}`)).body.status;
      if (status !== 'queued' && status !== 'running') break;
      await sleep(50);
    }
    said.push(`with room: plan ${status}`);
    expect(status === 'done', `the plan with room is ${status}`);
    const put = await server.put('model.stl', smallModel(1));
    expect(put.status === 200, `upload with room ${put.status}`);
  } finally {
    await server.kill();
  }
  console.log(
    JSON.stringify({ passed: wrong.length === 0, said: `${said.join(', ')}; faults: ${wrong.join(' | ') || 'none'}` }),
  );
}

/** A disk of 60 MB that fills up during saves, uploads and plans, and is then made larger. */
export function fullDisk(folder: string): Verdict {
  const script = `mount -t tmpfs -o size=${SIZE} tmpfs '${folder}' && exec npx tsx attack/main.ts --inside '${folder}'`;
  const r = spawnSync('unshare', ['-Urm', 'bash', '-c', script], { encoding: 'utf8' });
  if (r.error || /Operation not permitted|unshare failed|cannot open|permission denied/i.test(r.stderr))
    return { passed: null, said: `no mount of its own here (${(r.error?.message ?? r.stderr).trim().split('\n')[0]})` };
  try {
    return JSON.parse(r.stdout.trim().split('\n').at(-1) ?? '') as Verdict;
  } catch {
    return { passed: false, said: `no verdict: ${r.stderr.slice(-300)}` };
  }
}
