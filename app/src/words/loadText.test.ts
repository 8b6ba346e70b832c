import { expect, test } from 'vitest';
import type { SettingChange } from '@plain-trowel/core/sketch/settable';
import { changeText } from './loadText.ts';

const change = (name: SettingChange['name'], onBoard: string, inGarden: string): SettingChange => ({
  lineId: 'probe 1',
  lineName: 'C2',
  name,
  onBoard,
  inGarden,
});

// In which kind of percent the board's own calibration stands nobody knows.
test.each([
  [
    change('table', '1100:1000,2900:0', '1150:1000,2850:0'),
    'C2, calibration: 1100 is 100.0 %, 2900 is 0.0 % on the board, 1150 is 100.0 % span, 2850 is 0.0 % span in the garden',
  ],
  [
    change('soil', '900:3100', '900:3000'),
    'C2, in the soil between: 900 and 3100 (raw) on the board, 900 and 3000 (raw) in the garden',
  ],
  [
    change('leap', '5.0', '7.5'),
    'C2, nothing starts for a while after a leap of: 5.0 % on the board, 7.5 % span in the garden',
  ],
  [change('switch', 'on', 'off'), 'C2, switches by itself: yes on the board, no in the garden'],
  [change('dose', '90', '120'), 'C2, dose: 90 ml on the board, 120 ml in the garden'],
])('what differs is said in words', (of, text) => expect(changeText(of, '% span')).toBe(text));
