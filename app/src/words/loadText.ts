import type { LoadProblem } from '@plain-trowel/core/sketch/loader/port';
import type { LoadStep } from '@plain-trowel/core/sketch/loader/load';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { SettingChange } from '@plain-trowel/core/sketch/settable';

/** What the loader does right now. */
export const STEP_TEXT: Readonly<Record<LoadStep, string>> = {
  asking: 'Asking the board what runs on it …',
  stopping: 'Ending what runs …',
  'outputs-off': 'Seeing that every output is off …',
  writing: 'Writing beside the old program …',
  verifying: 'Comparing what lies on the board with what was sent …',
  switching: 'Making the new program the one that starts …',
  restarting: 'Restarting the board and listening for its first lines …',
};

/** What went wrong, what holds now, and what to do. No default: a new problem fails to compile here until it has words. */
export function loadProblemText(problem: LoadProblem): string {
  switch (problem) {
    case 'foreign-program':
      return 'The board runs something that was not written here, or sleeps. Interrupting that leaves its outputs as they are, so a pump that runs would run on. Take the supply of every pump and valve off first.';
    case 'no-interpreter':
      return 'Nobody answered in MicroPython. Put the interpreter of your kind of board onto it first, as its maker describes, and choose the right port.';
    case 'line-lost':
      return 'The line to the board was cut. A program that was loaded from here starts again by itself within two minutes, its outputs off until then; anything else starts again when you restart the board. Plug it in and load once more.';
    case 'no-answer':
      return 'The board stopped answering. Restart it: the program that it had runs again. Then load once more.';
    case 'board-refused':
      return 'The board said that a step failed. Nothing was switched over: it goes back to the program that it had, at once or within two minutes. Load once more.';
    case 'disk-full':
      return 'There is not enough room on the board. Nothing was switched over: it goes back to the program that it had, at once or within two minutes. Take files of yours off it, and load once more.';
    case 'not-verified':
      return 'A file on the board was not what had been sent. Nothing was switched over: it goes back to the program that it had, at once or within two minutes. Load once more; if it happens again, its memory is worn or the cable bad.';
    case 'outputs-not-off':
      return 'An output did not go to its level at rest, so nothing was loaded. Look at its wiring, and whether the pin can be an output at all.';
    case 'did-not-start':
      return 'The new program did not start, and the board says that it runs another one. That one goes on. Keep what stands below; it says why.';
    case 'stopped':
      return 'You stopped it. The board goes back to the program that it had, at once or within two minutes; if it does not, restart it.';
  }
}

const SETTING_WORDS: Readonly<Record<SettingChange['name'], string>> = {
  start: 'start limit',
  stop: 'stop limit',
  dose: 'dose',
  water: 'waters by itself',
  switch: 'switches by itself',
  table: 'calibration',
  soil: 'in the soil between',
  leap: 'nothing starts for a while after a leap of',
  dry: 'its lamp says too dry below',
  wet: 'its lamp says too wet from',
};

function valueText(name: SettingChange['name'], value: string, unit: string): string {
  switch (name) {
    case 'dose':
      return `${value} ml`;
    case 'water':
    case 'switch':
      return value === 'on' ? 'yes' : 'no';
    case 'table':
      return value
        .split(',')
        .map((point) => {
          const [raw = '', tenths = ''] = point.split(':');
          return `${raw} is ${formatNumber(Number(tenths) / 10, 1)} ${unit}`;
        })
        .join(', ');
    case 'soil':
      return `${value.replace(':', ' and ')} (raw)`;
    default:
      return `${value} ${unit}`;
  }
}

/** "Roof pump, start limit: 35.5 % span on the board, 40.0 % span in the garden" @param unit what limits of the line stand in; in which kind of percent the board’s own calibration stands nobody knows */
export const changeText = ({ lineName, name, onBoard, inGarden }: SettingChange, unit: string): string =>
  `${lineName}, ${SETTING_WORDS[name]}: ${valueText(name, onBoard, name === 'table' || name === 'leap' ? '%' : unit)} on the board, ${valueText(name, inGarden, unit)} in the garden`;
