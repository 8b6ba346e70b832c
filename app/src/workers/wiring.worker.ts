/** The checks of a wiring and the plans for it, away from the page: they solve its circuit in every situation. */
import { expose } from 'comlink';
import { catalogueWith } from '@plain-trowel/core/catalogue/catalogue';
import type { Entry } from '@plain-trowel/core/catalogue/schema';
import { checkWiring } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import type { Setting } from '@plain-trowel/core/wiring/finding';
import type { CableHabits } from '@plain-trowel/core/wiring/layCables';
import type { Netlist } from '@plain-trowel/core/wiring/netlist';
import { harmOf, planWiring, planWithout } from '@plain-trowel/core/wiring/planWiring';

/** What a wiring is judged by besides itself: a person's own catalogue entries, and what it stands in. */
export type Ground = { readonly own: readonly Entry[]; readonly setting: Setting };

const jobs = {
  check: (wiring: Netlist, { own, setting }: Ground) =>
    checkWiring(readCircuit(wiring, catalogueWith(own)), setting),

  /** What a change would lead to: its verdict, and what it would do harm with. */
  foresee: (before: Netlist, after: Netlist, { own, setting }: Ground) => ({
    verdict: checkWiring(readCircuit(after, catalogueWith(own)), setting),
    harm: harmOf(before, after, catalogueWith(own), setting),
  }),

  plan: (wiring: Netlist, { own, setting }: Ground, habits: CableHabits) =>
    planWiring(wiring, catalogueWith(own), setting, habits),

  planWithout: (wiring: Netlist, { own, setting }: Ground, habits: CableHabits, without: readonly string[]) =>
    planWithout(wiring, catalogueWith(own), setting, habits, without),
};

export type WiringJobs = typeof jobs;

expose(jobs);
