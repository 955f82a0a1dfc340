import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, test } from 'vitest';
import { jobSchema } from '../src/core/doc/job';
import { contentLoader } from '../src/server/content';
import { expectSample, expectWritten } from './programs-test-kit';

describe('the same job gives the same programs', () => {
  const folder = path.resolve(import.meta.dirname, '../src/core/doc/upgrade/fixtures');
  const nothing = contentLoader(() => new Uint8Array(0));
  test.each(readdirSync(folder).filter((f) => f.startsWith('v2-')))('%s', async (file) => {
    await expectWritten(file, jobSchema.parse(JSON.parse(readFileSync(path.join(folder, file), 'utf8'))), nothing);
  });

  // Two faces, and a drum; the others by hand, for each takes as long as these together.
  test.each(['OE-102', 'OE-107', 'OE-109'] as const)('%s of the sample shop', expectSample);
});
