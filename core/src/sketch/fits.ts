/** Whether a board can hold its program, as far as its traits tell. */
import type { BoardPlan, SketchProblem } from './plan.ts';
import { flatProgram } from './flatProgram.ts';

/** Working memory of the small boards, bytes, and what their own serial line, clock and stack take of it. Its words lie in program memory. */
const SMALL_BOARD_BYTES = 2048;
const OF_THE_BOARD_BYTES = 440;

export const isSmall = ({ traits }: BoardPlan): boolean => /\b8-bit\b/i.test(traits);

/**
 * Working memory that the program in C++ takes, bytes: the sizes of its structures without gaps, as an 8-bit compiler lays them out, with the copies that a step
 * and a start make on the stack.
 */
export function ramBytes({ engine, inputs, lines }: BoardPlan): number {
  const [s, t, l] = [engine.sensors.length, engine.tanks.length, engine.lines.length].map((count) =>
    Math.max(1, count),
  ) as [number, number, number];
  const slots = Math.max(1, ...engine.lines.map(({ program }) => flatProgram(program).slots.length));
  const config = 16 + 96 * s + 17 * t + l * (123 + 8 * slots);
  const state = 4 + 18 * s + 9 * t + l * (284 + 4 * slots);
  const input = 38 + 10 * s + 10 * t + 20 * l;
  const answer = 9 + l + 19 * (4 * l + 4);
  const kept = 213 * l;
  const names = [...inputs, ...lines].reduce((sum, { name }) => sum + name.length + 6, 0) + 6 * inputs.length;
  return config + state + 2 * input + answer + kept + names + OF_THE_BOARD_BYTES;
}

/** What a board's own size forbids in C++. */
export const cppProblems = (plan: BoardPlan): readonly SketchProblem[] =>
  isSmall(plan) && ramBytes(plan) > SMALL_BOARD_BYTES
    ? [{ kind: 'too-large', what: plan.board, sheet: 'plan/parts' }]
    : [];

/** What forbids a program in MicroPython: a board that is too small for the language, and inputs that only C++ has a name for. */
export const pythonProblems = (plan: BoardPlan): readonly SketchProblem[] =>
  isSmall(plan)
    ? [{ kind: 'no-python', what: plan.board, sheet: 'plan/parts' }]
    : plan.inputs.flatMap(({ pin, second, label }): SketchProblem[] =>
        pin.kind === 'input' || second?.kind === 'input'
          ? [{ kind: 'no-input-pin', what: label, sheet: 'bench/readout' }]
          : [],
      );
