import { benchBrowser } from './browser.ts';
import { benchCore } from './core.ts';
import { benchSettling } from './settling.ts';

benchCore();
benchSettling();
await benchBrowser({ tenMinutes: process.argv.includes('--ten-minutes') });
