import { test } from 'vitest';
import { expectSample } from './programs-test-kit';
import { DEMO_ORDERS } from './shop';

test.each(DEMO_ORDERS)('%s of the sample shop gives the programs that it gave', expectSample);
