/** Boards by the traits that a calibration depends on, for the form of a new plot. A person may overrule either number. */
import { BUILT_IN } from './catalogue.ts';

export type BoardTraits = { readonly traits: string; readonly adcBits: number; readonly supplyV: number };

/** The board that most people begin with stands first. */
const FIRST = 'board-wifi-two-groups';

export const BOARD_TRAITS: readonly BoardTraits[] = BUILT_IN.filter((entry) => entry.role === 'board')
  .toSorted((one, other) => Number(other.id === FIRST) - Number(one.id === FIRST))
  .flatMap(({ name, facts }) =>
    facts.adcBits == null || facts.logicV == null
      ? []
      : [{ traits: name, adcBits: facts.adcBits, supplyV: facts.logicV }],
  );
