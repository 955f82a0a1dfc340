import { test } from 'vitest';
import { standing } from './models-test-kit';
import { expectCarved } from './newcomer-test-kit';

test('a standing animal with narrow gaps between its legs, 60 mm long, is carved without an error or a warning', async () => {
  await expectCarved('A standing animal', 60, standing());
});
