/**
 * The electrical facts an entry of the catalogue or a part of a wiring may carry: one table of keys with their words, units and ranges.
 * The forms, the check of files and the documentation all read it. A fact that is absent or null is unknown, and every check says so.
 */
export type FactAbout = {
  readonly name: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly decimals: number;
};

const about = (name: string, unit: string, least: number, most: number, decimals = 0): FactAbout => ({
  name,
  unit,
  least,
  most,
  decimals,
});

export const FACTS = {
  // What it takes
  activeMa: about('current while working', 'mA', 0, 100_000, 2),
  sleepMa: about('current asleep', 'mA', 0, 10_000, 3),
  radioMa: about('current on the air', 'mA', 0, 5000),
  peakMa: about('highest current', 'mA', 0, 200_000),
  warmUpS: about('warm-up before a reading', 's', 0, 600, 2),
  measureS: about('time of a reading', 's', 0, 600, 2),
  wakeS: about('awake for one reading', 's', 0, 3600, 1),
  radioS: about('on the air for one report', 's', 0, 3600, 1),
  poweredYears: about('life under constant power', 'years', 0.01, 100, 2),
  idleYears: about('life in place, unpowered', 'years', 0.01, 100, 1),
  // Boards
  logicV: about('logic voltage', 'V', 1, 24, 1),
  adcBits: about('converter resolution', 'bits', 1, 24),
  adcReferenceV: about('converter reference', 'V', 0.1, 24, 2),
  sourceLimitOhm: about('most source impedance of an input', 'Ω', 10, 1e7),
  inputOhm: about('load of an input', 'Ω', 100, 1e9),
  pinMa: about('most current of one pin', 'mA', 0.1, 500, 1),
  pinsTotalMa: about('most current of all pins', 'mA', 1, 5000),
  regulatorMa: about('most current from the board’s regulator', 'mA', 1, 10_000),
  hasRadio: about('has a radio (1 yes, 0 no)', '', 0, 1),
  // Resistors and switches
  ohm: about('resistance', 'Ω', 0.01, 1e9, 1),
  mostOhm: about('resistance when dry, dark or cold', 'Ω', 1, 1e9),
  leastOhm: about('resistance when wet, bright or hot', 'Ω', 0.1, 1e9, 1),
  upperOhm: about('upper resistor', 'Ω', 1, 1e8),
  lowerOhm: about('lower resistor', 'Ω', 1, 1e8),
  r25Ohm: about('thermistor at 25 °C', 'Ω', 10, 1e7),
  betaK: about('beta', 'K', 1000, 10_000),
  hfe: about('current gain', '', 1, 5000),
  gateFullOnV: about('gate voltage when fully on', 'V', 0.5, 30, 1),
  onOhm: about('on-resistance', 'Ω', 0.0001, 100, 3),
  switchedV: about('most voltage it switches', 'V', 1, 1000),
  switchedMa: about('most current it switches', 'mA', 1, 100_000),
  lights: about('lights', '', 1, 300),
  letters: about('letters of a line, of a text display', '', 16, 40),
  closedUs: about('pulse when shut', 'µs', 500, 2500),
  openUs: about('pulse when open', 'µs', 500, 2500),
  pulseMs: about('pulse that turns it', 'ms', 5, 500),
  activeLow: about('on when low (1 yes, 0 no)', '', 0, 1),
  hasFlyback: about('has its own flyback diode (1 yes, 0 no)', '', 0, 1),
  forwardV: about('forward voltage', 'V', 0.2, 12, 2),
  fuseA: about('fuse rating', 'A', 0.05, 100, 2),
  ratedV: about('rated voltage', 'V', 0.5, 60, 1),
  // Buses and loops
  busPf: about('load on a bus', 'pF', 0, 2000),
  ownPullUpOhm: about('pull-ups of its own', 'Ω', 100, 1e6),
  unitLoad: about('unit loads on RS-485', '', 0.01, 10, 3),
  hasTermination: about('has a terminator (1 yes, 0 no)', '', 0, 1),
  selfDirected: about('switches direction by itself (1 yes, 0 no)', '', 0, 1),
  loopV: about('least voltage of a loop probe', 'V', 1, 36, 1),
  // Supplies
  alternating: about('alternating current (1 yes, 0 no)', '', 0, 1),
  capacityMah: about('capacity', 'mAh', 1, 1e6),
  panelW: about('rated power', 'W', 0.1, 1000, 1),
  hasProtection: about('has its own protection (1 yes, 0 no)', '', 0, 1),
  // Care
  lineMark: about('has a line it must not be dipped past (1 yes, 0 no)', '', 0, 1),
  waterproof: about('may be buried whole (1 yes, 0 no)', '', 0, 1),
} as const satisfies Record<string, FactAbout>;

export type FactKey = keyof typeof FACTS;
export const FACT_KEYS = Object.keys(FACTS) as [FactKey, ...FactKey[]];
/** Absent and null both mean unknown. */
export type Facts = Readonly<Partial<Record<FactKey, number | null>>>;
