/** Boards by the traits that a calibration depends on, for the form that starts a garden. A person may overrule either number. */
import { BOARDS } from './boards.ts';

export type BoardTraits = { readonly traits: string; readonly adcBits: number; readonly supplyV: number };

/** The board that most people begin with stands first. */
const FIRST = 'board-wifi-two-groups';

export const BOARD_TRAITS: readonly BoardTraits[] = BOARDS.toSorted(
  (one, other) => Number(other.id === FIRST) - Number(one.id === FIRST),
).flatMap(({ name, facts }) =>
  facts.adcBits == null || facts.logicV == null
    ? []
    : [{ traits: name, adcBits: facts.adcBits, supplyV: facts.logicV }],
);
