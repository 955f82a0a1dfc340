import { v1ToV2 } from './v1-to-v2';
import { v2ToV3 } from './v2-to-v3';
import { v3ToV4 } from './v3-to-v4';
import { v4ToV5 } from './v4-to-v5';
import { v5ToV6 } from './v5-to-v6';
import { v6ToV7 } from './v6-to-v7';
import { v7ToV8 } from './v7-to-v8';
import { v8ToV9 } from './v8-to-v9';
import { v9ToV10 } from './v9-to-v10';

/** Steps by the version that they start from. */
const STEPS: Record<number, (old: Record<string, unknown>) => unknown> = {
  1: v1ToV2,
  2: v2ToV3,
  3: v3ToV4,
  4: v4ToV5,
  5: v5ToV6,
  6: v6ToV7,
  7: v7ToV8,
  8: v8ToV9,
  9: v9ToV10,
};

/** Brings a job document of an older version up to date, step by step. What is no job document is handed on as it is. */
export function upgradeJob(raw: unknown): unknown {
  let now = raw;
  for (;;) {
    const version = typeof now === 'object' && now !== null ? (now as { version?: unknown }).version : undefined;
    const step = typeof version === 'number' ? STEPS[version] : undefined;
    if (!step) return now;
    const next = step(now as Record<string, unknown>);
    if ((next as { version?: unknown } | null)?.version === version) return next;
    now = next;
  }
}
