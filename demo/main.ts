import { dataFolder } from '@/server/database';
import { createJob, putAsset } from '@/server/jobs';
import { putPattern } from '@/server/patterns';
import { openShop } from '@/server/shop';
import { demoPatterns } from './patterns';
import { demoJobs } from './shop';

/** Fills an empty data folder with the sample shop. Does nothing where there are jobs already. */
const { db, assets, rack } = await openShop(dataFolder());
async function keep(file: string, bytes: Uint8Array) {
  const taken = await assets.take(new Blob([bytes as Uint8Array<ArrayBuffer>]).stream() as never, file);
  await putAsset(db, { ...taken, file });
  return { ...taken, file };
}

if ((await rack.list()).length === 0) {
  for (const p of demoPatterns()) {
    const asset = await keep(p.file, p.bytes);
    await putPattern(db, {
      ...asset,
      name: p.name,
      tags: p.tags,
      from: p.from,
      size: p.size,
      rise: p.rise,
      price: null,
      licence: '',
    });
  }
  // The newest stands first on the rack.
  for (const { files, job } of await demoJobs()) {
    for (const f of files.values()) await keep(f.name, f.bytes);
    await createJob(db, job, { ahead: true });
  }
  console.log('made the sample shop');
}
await db.destroy();
