import { benchBrowser } from './browser.ts';
import { benchCore } from './core.ts';
import { benchCalibration } from './calibration/run.ts';
import { benchGateway, benchHour, benchKills } from './gateway/run.ts';
import { benchHandsFree } from './handsFree.ts';
import { benchSettling } from './settling.ts';
import { benchEnds } from './settlingEnd.ts';
import { benchTables } from './tables.ts';
import { benchRandomGardens } from './wiring/randomGardens.ts';
import { benchSabotage } from './wiring/run.ts';

const BENCHES = {
  core: () => benchCore(),
  settling: () => benchSettling(),
  ends: () => benchEnds(),
  calibration: () => benchCalibration(),
  sabotage: () => benchSabotage(),
  gardens: () => benchRandomGardens(),
  bench: () => benchHandsFree(),
  tables: () => benchTables(),
  gateway: () => benchGateway(),
  kills: () => benchKills(),
  browser: () => benchBrowser({ tenMinutes: process.argv.includes('--ten-minutes'), only: null }),
};

/** Parts of a bench, for when only they are named. */
const PARTS = {
  hour: () => benchHour(),
  budget: () => benchBrowser({ tenMinutes: false, only: 'budget' }),
  season: () => benchBrowser({ tenMinutes: false, only: 'season' }),
};

/** All of them, or those that are named. */
const named = process.argv.slice(2).filter((one) => !one.startsWith('-'));
for (const [name, run] of Object.entries({ ...BENCHES, ...PARTS }))
  if (named.length === 0 ? name in BENCHES : named.includes(name)) await run();
