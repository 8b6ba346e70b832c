import type { Program } from '../control/programs/programs.ts';
import type { Slot } from '../control/programs/slots.ts';

/** A program with a place for every setting that any kind has, as boards keep it; what a kind does not use is 0. */
export type FlatProgram = {
  readonly startTenths: number;
  readonly stopTenths: number;
  /** The dose, the pulse or the cap. */
  readonly doseMl: number;
  readonly soakS: number;
  readonly mostPulses: number;
  readonly restS: number;
  readonly intervalS: number;
  readonly interrupts: boolean;
  readonly leader: number;
  readonly sharePercent: number;
  readonly everyNth: number;
  readonly slots: readonly Slot[];
};

const NOTHING: FlatProgram = {
  startTenths: 0,
  stopTenths: 0,
  doseMl: 0,
  soakS: 0,
  mostPulses: 0,
  restS: 0,
  intervalS: 0,
  interrupts: false,
  leader: 0,
  sharePercent: 0,
  everyNth: 0,
  slots: [],
};

export function flatProgram(program: Program): FlatProgram {
  switch (program.kind) {
    case 'alert-only':
      return NOTHING;
    case 'timer':
      return { ...NOTHING, slots: program.slots, doseMl: program.doseMl };
    case 'veto':
      return {
        ...NOTHING,
        slots: program.slots,
        doseMl: program.doseMl,
        stopTenths: program.wetTenths,
        interrupts: program.interrupts,
      };
    case 'until-wet':
      return {
        ...NOTHING,
        startTenths: program.startTenths,
        stopTenths: program.stopTenths,
        doseMl: program.capMl,
      };
    case 'single-dose': {
      const { startTenths, doseMl, intervalS } = program;
      return { ...NOTHING, startTenths, doseMl, intervalS };
    }
    case 'pulse-soak': {
      const { startTenths, stopTenths, pulseMl, soakS, mostPulses, restS } = program;
      return { ...NOTHING, startTenths, stopTenths, doseMl: pulseMl, soakS, mostPulses, restS };
    }
    case 'follower': {
      const { leader, sharePercent, everyNth } = program;
      return { ...NOTHING, leader, sharePercent, everyNth };
    }
  }
}
