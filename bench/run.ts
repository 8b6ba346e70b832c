import { benchBrowser } from './browser.ts';
import { benchCore } from './core.ts';
import { benchCalibration } from './calibration.ts';
import { benchSettling } from './settling.ts';

benchCore();
benchSettling();
benchCalibration();
await benchBrowser({ tenMinutes: process.argv.includes('--ten-minutes') });
