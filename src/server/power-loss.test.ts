import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { loaf, shapeMesh } from '../../demo/shapes';
import { jobSchema } from '../core/doc/job';
import { planWhole } from '../core/plan/plan-test-kit';
import { writeStl } from '../core/sources/stl';
import { type FileStep, watchFiles } from './files';
import { createJob, getAsset, getJob, putAsset, saveJob } from './jobs';
import { planFiles } from './plan-files';
import { readPlanner } from './planner';
import { storeResult } from './results';
import { openShop } from './shop';
import { inputOf } from './what-if';

const root = mkdtempSync(path.join(tmpdir(), 'zg-power-'));
const live = path.join(root, 'live');
afterAll(() => {
  watchFiles(null);
  rmSync(root, { recursive: true, force: true });
});

/** A file as the disk has it: its bytes once they were synced, null before. */
class DiskFile {
  bytes: Buffer | null = null;
}
/** A folder: the names that programs see, and those that a power cut leaves. */
class DiskFolder {
  entries = new Map<string, DiskFile | DiskFolder>();
  durable = new Map<string, DiskFile | DiskFolder>();
}

/** What a disk would hold after a power cut: bytes that were not synced are gone, and so are names whose folder was not. */
class Disk {
  readonly top = new DiskFolder();

  private find(file: string): { parent: DiskFolder; name: string } {
    const parts = path.relative(live, file).split(path.sep);
    let parent = this.top;
    for (const p of parts.slice(0, -1)) {
      let next = parent.entries.get(p);
      if (!(next instanceof DiskFolder)) {
        next = new DiskFolder();
        parent.entries.set(p, next);
      }
      parent = next;
    }
    return { parent, name: parts[parts.length - 1] };
  }

  apply(step: FileStep): void {
    if (step.path === live) {
      if (step.kind === 'sync') this.top.durable = new Map(this.top.entries);
      return;
    }
    if (path.relative(live, step.path).startsWith('..')) return;
    const { parent, name } = this.find(step.path);
    const node = parent.entries.get(name);
    if (step.kind === 'folder' && !node) parent.entries.set(name, new DiskFolder());
    if (step.kind === 'write') parent.entries.set(name, new DiskFile());
    if (step.kind === 'remove') parent.entries.delete(name);
    if (step.kind === 'sync' && node instanceof DiskFile) node.bytes = readFileSync(step.path);
    if (step.kind === 'sync' && node instanceof DiskFolder) node.durable = new Map(node.entries);
    if (step.kind === 'rename' && node) {
      parent.entries.delete(name);
      const to = this.find(step.to);
      to.parent.entries.set(to.name, node);
    }
  }

  /** Writes what is left after a power cut now. */
  leave(into: string, folder = this.top): void {
    mkdirSync(into, { recursive: true });
    for (const [name, node] of folder.durable) {
      if (node instanceof DiskFolder) this.leave(path.join(into, name), node);
      else writeFileSync(path.join(into, name), node.bytes ?? Buffer.alloc(0));
    }
  }
}

interface Acknowledged {
  jobs: Map<string, string>;
  hashes: string[];
  plans: string[];
}

const job = jobSchema.parse(JSON.parse(readFileSync('src/core/doc/upgrade/fixtures/v2-skimmed-face.json', 'utf8')));

test('a power cut at any moment of a save, an upload and a plan loses nothing acknowledged, and nothing half stands as whole', async () => {
  const disk = new Disk();
  // The disk as it would be left after each step, with what the database held at its last commit.
  const moments: { folder: string; told: Acknowledged; step: FileStep | null }[] = [];
  const told: Acknowledged = { jobs: new Map(), hashes: [], plans: [] };
  let count = 0;
  let commits = path.join(root, 'commit-0');
  const commit = () => {
    commits = path.join(root, `commit-${count++}`);
    mkdirSync(commits);
    for (const end of ['', '-wal']) {
      const file = path.join(live, `zealous-grain.sqlite${end}`);
      if (existsSync(file)) copyFileSync(file, path.join(commits, `zealous-grain.sqlite${end}`));
    }
  };
  const moment = (step: FileStep | null = null) => {
    const folder = path.join(root, `moment-${moments.length}`);
    disk.leave(folder);
    for (const end of ['', '-wal']) {
      const file = path.join(commits, `zealous-grain.sqlite${end}`);
      if (existsSync(file)) copyFileSync(file, path.join(folder, `zealous-grain.sqlite${end}`));
    }
    moments.push({ folder, told: structuredClone(told), step });
  };
  watchFiles((step) => {
    disk.apply(step);
    moment(step);
  });
  const shop = await openShop(live);
  commit();

  const made = await createJob(shop.db, job);
  commit();
  told.jobs.set(made.id, job.name);
  moment();
  const saved = await saveJob(shop.db, made.id, made.revision, { ...job, name: 'Saved' });
  commit();
  told.jobs.set(made.id, 'Saved');
  moment();

  const bytes = writeStl(shapeMesh(loaf, 3), 'loaf') as Uint8Array<ArrayBuffer>;
  const taken = await shop.assets.take(new Blob([bytes]).stream() as never, 'loaf.stl');
  await putAsset(shop.db, { ...taken, file: 'loaf.stl' });
  commit();
  told.hashes.push(taken.hash);
  moment();

  // A plan as its thread stores it, and as it is noted then; twice, so that a result is replaced too.
  const document = (await getJob(shop.db, made.id)).document;
  const input = inputOf(document);
  const place = path.join(live, 'plans', input);
  const plan = await planWhole(document);
  const created = new Date().toISOString();
  for (const planner of ['f'.repeat(64), readPlanner()]) {
    storeResult(place, `${place}.2147483646.00000000-0000-4000-8000-000000000000.part`, {
      planner,
      files: planFiles(plan, {}),
    });
    await shop.db
      .insertInto('plans')
      .values({
        id: 'p',
        job: made.id,
        revision: saved.revision,
        input,
        status: 'done',
        message: null,
        created,
        finished: created,
      })
      .onConflict((c) => c.column('id').doUpdateSet({ finished: created }))
      .execute();
    commit();
    told.plans = ['p'];
    moment();
  }
  watchFiles(null);
  await shop.plans.close();
  await shop.db.destroy();
  expect(moments.length).toBeGreaterThan(40);

  for (const [n, { folder, told: was, step }] of moments.entries()) {
    const again = await openShop(folder);
    const where = `at moment ${n}: ${JSON.stringify(step)}`;
    for (const [id, name] of was.jobs) expect((await getJob(again.db, id)).document.name, where).toBe(name);
    for (const { hash, file } of await again.db.selectFrom('assets').select(['hash', 'file']).execute()) {
      // Reading checks it against its hash.
      expect(again.assets.read(hash, file).length, where).toBe(bytes.length);
    }
    for (const hash of was.hashes) expect((await getAsset(again.db, hash)).file, where).toBe('loaf.stl');
    for (const { id } of await again.db.selectFrom('plans').select('id').execute()) {
      const state = await again.plans.state(id);
      expect(state.status, where).toBe('done');
      for (let i = 0; i < plan.summary.programs.length; i++)
        expect((await again.plans.file(id, `program-${i}.nc`)).toString(), where).toBe(plan.summary.programs[i].text);
    }
    expect(was.plans.length === 0 || (await again.plans.latest(was.jobs.keys().next().value!))?.id === 'p', where).toBe(
      true,
    );
    await again.plans.close();
    await again.db.destroy();
    expect(statSync(folder).isDirectory()).toBe(true);
  }
});
