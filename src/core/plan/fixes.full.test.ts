import { test } from 'vitest';
import { expectMended, SCENES } from './fixes-test-kit';

const long = SCENES.flatMap(([rule, make, long], i) => (long ? [{ name: `${rule} (${i + 1})`, rule, make }] : []));

test.each(long)('every fix mends what it is offered for: $name', async ({ rule, make }) => {
  await expectMended(rule, make);
});
