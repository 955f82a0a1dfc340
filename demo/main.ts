import { dataFolder } from '@/server/database';
import { createJob, listJobs, putAsset } from '@/server/jobs';
import { openShop } from '@/server/shop';
import { demoJobs } from './shop';

/** Fills an empty data folder with the sample shop. Does nothing where there are jobs already. */
const { db, assets } = await openShop(dataFolder());
if ((await listJobs(db)).length === 0) {
  for (const demo of demoJobs().reverse()) {
    const body = new Blob([demo.bytes as Uint8Array<ArrayBuffer>]).stream();
    const taken = await assets.take(body as never, demo.file);
    await putAsset(db, { ...taken, file: demo.file });
    await createJob(db, demo.job(taken.hash));
  }
  console.log('made the sample shop');
}
await db.destroy();
