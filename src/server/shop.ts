import path from 'node:path';
import type { Kysely } from 'kysely';
import { AssetStore } from './assets';
import { dataFolder, openDatabase, type Schema } from './database';
import { Exporter } from './exports';
import { readPlanner } from './planner';
import { PlanRunner } from './plans';
import { Reader } from './reader';
import { StageCache } from './stage-cache';

export interface Shop {
  db: Kysely<Schema>;
  assets: AssetStore;
  plans: PlanRunner;
  exports: Exporter;
  reader: Reader;
}

export async function openShop(folder: string): Promise<Shop> {
  const db = await openDatabase(folder);
  const cache = path.join(folder, 'cache');
  const planner = readPlanner();
  const reader = new Reader(new StageCache(cache), planner);
  const assets = new AssetStore(path.join(folder, 'assets'), reader);
  const plans = new PlanRunner(db, assets, path.join(folder, 'plans'), cache, planner);
  const exports = new Exporter({ assets: assets.folder, cache, folder: path.join(folder, 'pictures'), planner });
  return { db, assets, plans, exports, reader };
}

const held = globalThis as typeof globalThis & { zealousGrainShop?: Promise<Shop> };

/** The one shop that a server process works with. */
export function shop(): Promise<Shop> {
  held.zealousGrainShop ??= openShop(dataFolder());
  return held.zealousGrainShop;
}
