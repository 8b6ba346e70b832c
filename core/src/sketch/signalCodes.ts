/** What a lamp says as numbers, for boards. */
import { SIGNAL_CODES } from '../control/codes.ts';
import type { Buzz, LampColour, LampRhythm, SignalRule } from '../control/signals.ts';

/** Bits: red, green, blue. */
const COLOURS: Readonly<Record<LampColour, number>> = {
  off: 0,
  red: 1,
  amber: 3,
  green: 2,
  blue: 4,
  white: 7,
};
const RHYTHMS: Readonly<Record<LampRhythm, number>> = { steady: 0, 'slow blink': 1, 'fast blink': 2 };
const BUZZES: Readonly<Record<Buzz, number>> = {
  silent: 0,
  once: 1,
  'every minute': 2,
  'every 10 minutes': 3,
  'every hour': 4,
  'while it lasts': 5,
};

/** State, colours, rhythm, buzz. */
export const signalCodes = ({
  state,
  lamp,
  rhythm,
  buzz,
}: SignalRule): readonly [number, number, number, number] => [
  SIGNAL_CODES[state],
  COLOURS[lamp],
  RHYTHMS[rhythm],
  BUZZES[buzz],
];
