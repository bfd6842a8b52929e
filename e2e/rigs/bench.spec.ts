import { small } from '../../bench/small.mjs';
import { test } from '@playwright/test';

test('every bench runs', async () => {
  await small();
});
