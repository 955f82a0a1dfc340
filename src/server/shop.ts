import path from 'node:path';
import type { Kysely } from 'kysely';
import { AssetStore } from './assets';
import { dataFolder, openDatabase, type Schema } from './database';
import { PlanRunner } from './plans';

export interface Shop {
  db: Kysely<Schema>;
  assets: AssetStore;
  plans: PlanRunner;
}

export async function openShop(folder: string): Promise<Shop> {
  const db = await openDatabase(folder);
  const assets = new AssetStore(path.join(folder, 'assets'));
  const plans = new PlanRunner(db, assets, path.join(folder, 'plans'), path.join(folder, 'cache'));
  return { db, assets, plans };
}

const held = globalThis as typeof globalThis & { zealousGrainShop?: Promise<Shop> };

/** The one shop that a server process works with. */
export function shop(): Promise<Shop> {
  held.zealousGrainShop ??= openShop(dataFolder());
  return held.zealousGrainShop;
}
