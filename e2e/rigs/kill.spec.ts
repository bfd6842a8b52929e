import { kills } from '../../bench/kills.mjs';
import { buildAll } from '../../scripts/build.mjs';
import { expect, test } from '@playwright/test';

test('no record that was acknowledged is lost when the server or the database is killed', async () => {
  await buildAll({ web: false });
  const report = await kills({ serverKills: 4, databaseKills: 1 });
  expect(report.acknowledged).toBeGreaterThan(50);
  expect(report).toMatchObject({ missing: 0, rebuilt: 0 });
  expect(report.said).toContain(', 0 differed');
});
