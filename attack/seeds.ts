import { execFile } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Verdict } from './say';

/** The tests that draw random examples, or a part of their cases, by the seed. */
function propertyTests(): string[] {
  const files = ['src', 'demo'].flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((file) => path.join(folder, file)),
  );
  return files.filter(
    (file) => file.endsWith('.test.ts') && /from 'fast-check'|ZG_SEED/.test(readFileSync(file, 'utf8')),
  );
}

function run(files: string[], seed: number): Promise<string | null> {
  const env = { ...process.env, ZG_SEED: String(seed), NO_COLOR: '1' };
  return new Promise((resolve) => {
    execFile('npx', ['vitest', 'run', ...files], { env, maxBuffer: 1 << 26 }, (error, stdout, stderr) => {
      const failed = `${stdout}${stderr}`.split('\n').filter((line) => /FAIL|Counterexample|AssertionError/.test(line));
      resolve(error ? `seed ${seed}: ${failed.join('; ').slice(0, 600)}` : null);
    });
  });
}

/** Runs the property tests with other examples, one seed after the other. @param count number of seeds */
export async function seeds(count: number): Promise<Verdict> {
  const files = propertyTests();
  const said: string[] = [];
  for (let seed = 1000; seed < 1000 + count; seed++) {
    const failure = await run(files, seed);
    if (failure) said.push(failure);
  }
  return {
    passed: said.length === 0,
    said: `${files.length} files, ${count} seeds, ${said.length} with a failure\n${said.join('\n')}`,
  };
}
