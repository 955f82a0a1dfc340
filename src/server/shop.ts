import path from 'node:path';
import type { Kysely } from 'kysely';
import { AssetStore } from './assets';
import { CutPictures } from './cut-pictures';
import { dataFolder, openDatabase, type Schema } from './database';
import { Exporter } from './exports';
import { clearResults, forgetRemoved } from './keeping';
import { PictureStore } from './picture-store';
import { readPlanner } from './planner';
import { PlanRunner } from './plans';
import { Rack } from './rack';
import { Reader } from './reader';
import { StageCache } from './stage-cache';

export interface Shop {
  db: Kysely<Schema>;
  assets: AssetStore;
  plans: PlanRunner;
  exports: Exporter;
  cuts: CutPictures;
  reader: Reader;
  rack: Rack;
}

/** Opens a shop's folder: brings its database up to date, and clears away what nobody will ask for again. */
export async function openShop(folder: string): Promise<Shop> {
  const db = await openDatabase(folder);
  await forgetRemoved(db);
  const cache = path.join(folder, 'cache');
  const planner = readPlanner();
  const stages = new StageCache(cache);
  stages.sweep();
  const reader = new Reader(stages, planner);
  const assets = new AssetStore(path.join(folder, 'assets'), reader);
  assets.sweep();
  const results = path.join(folder, 'plans');
  const plans = new PlanRunner(db, assets, results, cache, planner);
  await clearResults(db, results);
  const pictures = new PictureStore(path.join(folder, 'pictures'));
  const exports = new Exporter({ assets: assets.folder, cache, planner, pictures });
  const cuts = new CutPictures(plans.surfaces, pictures, planner);
  return { db, assets, plans, exports, cuts, reader, rack: new Rack(db) };
}

const held = globalThis as typeof globalThis & { zealousGrainShop?: Promise<Shop> };

/**
 * Does something while this process has its shop closed, as when its folder is put aside. Who asks for the shop meanwhile waits, and gets
 * what lies there then.
 */
export async function whileClosed(work: () => void): Promise<void> {
  const open = held.zealousGrainShop;
  let done = () => {};
  const finished = new Promise<void>((resolve) => {
    done = resolve;
  });
  // Who asks is told what stands in the way; nobody may be asking.
  hold(finished.then(() => openShop(dataFolder()))).catch(() => {});
  try {
    if (open) {
      const { plans, db } = await open;
      await plans.close();
      await db.destroy();
    }
    work();
  } finally {
    done();
  }
}

/** A shop that serves goes on with what is to be planned ahead. */
async function begun(opened: Shop): Promise<Shop> {
  await opened.plans.planAhead();
  return opened;
}

/** Holds a shop that is being opened; what stood in the way (a full disk) may be gone the next time. */
function hold(opening: Promise<Shop>): Promise<Shop> {
  const opened = opening.then(begun).catch((e) => {
    if (held.zealousGrainShop === opened) held.zealousGrainShop = undefined;
    throw e;
  });
  held.zealousGrainShop = opened;
  return opened;
}

/** The one shop that a server process works with. */
export function shop(): Promise<Shop> {
  return held.zealousGrainShop ?? hold(openShop(dataFolder()));
}
