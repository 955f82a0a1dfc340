import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { afterEach, expect, test } from 'vitest';

const planted = 'src/core/units/planted.ts';
afterEach(() => rmSync(planted, { force: true }));

const cruise = () =>
  spawnSync('npx', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'demo'], { encoding: 'utf8' });

test('the layers import downwards only, and an import upwards is noticed', () => {
  expect(cruise().status).toBe(0);
  mkdirSync('src/core/units', { recursive: true });
  for (const [target, rule] of [
    ['../../server/shop', 'core-is-alone'],
    ['../proof/prove', 'core-units-is-early'],
    ['node:fs', 'core-'],
  ]) {
    writeFileSync(planted, `import * as above from '${target}';\nexport const use = above;\n`);
    const r = cruise();
    expect(r.status).not.toBe(0);
    expect(r.stdout + r.stderr).toContain(rule);
  }
}, 120_000);
