import { addressOf } from '../contract/endpoint';
import { type FirstLook, JOBS } from '../contract/jobs';
import { PLANS } from '../contract/plans';
import type { Shop } from './shop';

/**
 * What a page shows of a job before its scripts run: the cut board of the setup that is asked for where the newest version is proven, else its
 * layers joined. Null where there is no such job.
 * @param setup null for the one that a job shows by itself
 * @param layers whether the layers are looked at, proven or not
 */
export async function firstLook(
  { rack }: Pick<Shop, 'rack'>,
  id: string,
  { setup, layers }: { setup: string | null; layers: boolean },
): Promise<FirstLook | null> {
  const job = await rack.one(id);
  if (!job) return null;
  const { name, revision, plan } = job;
  const shown = setup ?? job.setup;
  const proven = plan?.status === 'done' && plan.revision === revision;
  if (proven && !layers && shown !== null)
    return { name, picture: addressOf(PLANS.picture, { id: plan.id, setup: shown }) };
  return { name, picture: shown === job.setup ? addressOf(JOBS.revisionPicture, { id, revision }) : null };
}
