/** A program as it lies on a board: a folder with its files and a list of them, by which the board knows whether it is whole. */
import { sumOf } from '../quantity/sumOf.ts';
import { pinsOfOutput, type Output } from './pins.ts';
import type { BoardPlan } from './plan.ts';

export type BoardFile = { readonly name: string; readonly text: string };

/** The two folders of which one holds the program that runs and the other the one before it. */
export const FOLDERS = ['trowel_a', 'trowel_b'] as const;
export const LIST_NAME = 'files.txt';

/** So many letters tell two texts apart; they are a name, not a lock. */
const NAME_LETTERS = 6;
/** The name of a program: of its frame and of the whole of it, so that one can tell what has changed. */
export const nameOf = (frame: string, whole: string): string =>
  sumOf(frame).slice(0, NAME_LETTERS) + sumOf(whole).slice(0, NAME_LETTERS);
/** Two programs with the same one differ in nothing but what can be set while they run. */
export const frameNameOf = (name: string): string => name.slice(0, NAME_LETTERS);

/** What brings a board's outputs to rest: a level at a pin, and of a latching valve a pulse of so many ms at the pin that shuts it. */
export type Rest = readonly [pin: number, level: 0 | 1, pulseMs?: number];

/** Pins with their level at rest, then the pulses. */
export const restLevels = ({ lines, contacts }: BoardPlan): readonly Rest[] => {
  const outputs = [...lines, ...contacts].map(({ output }) => output);
  const rest = ({ activeLow }: Output): 0 | 1 => (activeLow ? 1 : 0);
  return [
    ...outputs.flatMap((one) => pinsOfOutput(one).map(({ number }): Rest => [number, rest(one)])),
    ...outputs.flatMap((one): Rest[] =>
      one.latch ? [[one.latch.shut.number, rest(one), one.latch.ms]] : [],
    ),
  ];
};

/** The list of a folder. @param number of the program; the board starts the highest one that is whole */
export function listText(files: readonly BoardFile[], number: number, rest: readonly Rest[]): string {
  return [
    'trowel 1',
    String(number),
    ...rest.map(([pin, level, ms]) =>
      ms === undefined ? `off ${pin} ${level}` : `pulse ${pin} ${level} ${ms}`,
    ),
    ...files.map(({ name, text }) => `file ${sumOf(text)} ${name}`),
    'end',
    '',
  ].join('\n');
}

export type ProgramList = {
  readonly number: number;
  readonly files: readonly { readonly sum: string; readonly name: string }[];
};

/** Null for a list that is missing or was cut off. */
export function readList(list: string): ProgramList | null {
  const rows = list.split('\n');
  const number = /^\d{1,9}$/.test(rows[1] ?? '') ? Number(rows[1]) : NaN;
  if (rows[0] !== 'trowel 1' || !rows.includes('end') || Number.isNaN(number)) return null;
  const files = rows.flatMap((row) => {
    const match = /^file ([0-9a-f]{64}) ([a-z_]+\.py)$/.exec(row);
    return match ? [{ sum: match[1] ?? '', name: match[2] ?? '' }] : [];
  });
  return { number, files };
}
