import { benchBrowser } from './browser.ts';
import { benchCore } from './core.ts';

benchCore();
await benchBrowser({ tenMinutes: process.argv.includes('--ten-minutes') });
