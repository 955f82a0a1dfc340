// Attacks a shop of its own as a tester would, on 127.0.0.1 only, and prints a table. Bounded; run by hand: npm run attack [name ...]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { bombs } from './bombs';
import { clients } from './clients';
import { documents } from './documents';
import { fullDisk, insideFullDisk } from './full-disk';
import { kills } from './kills';
import { plans } from './plans';
import { say, type Verdict } from './say';
import { seeds } from './seeds';
import { AttackedServer } from './server';

const KILLS = 50;
const DOCUMENTS = 500;
const PLANS = 200;
const SEEDS = 10;

const ATTACKS: Record<string, (folder: string) => Promise<Verdict> | Verdict> = {
  kills: (folder) => kills(new AttackedServer(folder), KILLS),
  'full-disk': fullDisk,
  clients: (folder) => clients(new AttackedServer(folder), 20, 10),
  bombs: (folder) => bombs(new AttackedServer(folder)),
  documents: (folder) => documents(new AttackedServer(folder), DOCUMENTS),
  plans: (folder) => plans(folder, PLANS),
  seeds: () => seeds(SEEDS),
};

const [first, second] = process.argv.slice(2);
if (first === '--inside') await insideFullDisk(second);
else {
  const names = process.argv.slice(2);
  for (const [name, attack] of Object.entries(ATTACKS)) {
    if (names.length > 0 && !names.includes(name)) continue;
    const folder = mkdtempSync(path.join(tmpdir(), 'zg-attack-'));
    try {
      const verdict = await attack(folder);
      say(name, verdict);
      if (verdict.passed === false) process.exitCode = 1;
    } catch (e) {
      say(name, { passed: false, said: (e as Error).stack ?? String(e) });
      process.exitCode = 1;
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}
