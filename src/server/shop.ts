import path from 'node:path';
import type { Kysely } from 'kysely';
import { AssetStore } from './assets';
import { dataFolder, openDatabase, type Schema } from './database';
import { Exporter } from './exports';
import { PlanRunner } from './plans';
import { StageCache } from './stage-cache';
import { Views } from './views';

export interface Shop {
  db: Kysely<Schema>;
  assets: AssetStore;
  plans: PlanRunner;
  exports: Exporter;
  views: Views;
}

export async function openShop(folder: string): Promise<Shop> {
  const db = await openDatabase(folder);
  const assets = new AssetStore(path.join(folder, 'assets'));
  const cache = path.join(folder, 'cache');
  const plans = new PlanRunner(db, assets, path.join(folder, 'plans'), cache);
  const exports = new Exporter(assets.folder, cache, path.join(folder, 'pictures'));
  return { db, assets, plans, exports, views: new Views(new StageCache(cache)) };
}

const held = globalThis as typeof globalThis & { zealousGrainShop?: Promise<Shop> };

/** The one shop that a server process works with. */
export function shop(): Promise<Shop> {
  held.zealousGrainShop ??= openShop(dataFolder());
  return held.zealousGrainShop;
}
