/**
 * A trace as numbers in a text, for engines in other languages that run on a computer (`engine/cpp/proof.cpp`): `T` settings, `B` what a board kept, `C` one
 * call, and for each call one line of answers; of contacts `U`, `D` and `E`. "-" stands for what is not there.
 */
import { PROGRAM_CODES, SIGNAL_CODES } from '../../control/codes.ts';
import { signalOf, type SignalFacts, type SignalLimits, type SignalRule } from '../../control/signals.ts';
import type { Conditions } from '../../control/conditions/conditions.ts';
import type { Around, EngineInput, RawReading, Remembered } from '../../control/contract/types.ts';
import type { EngineConfig, LineConfig, SensorConfig, TankConfig } from '../../control/engine/settings.ts';
import type { ContactConfig, ContactsInput, Edge } from '../../control/contacts/contract.ts';
import type { AskedContactCalls, ContactAnswer } from '../../control/vectors/contactVectors.ts';
import type { AskedCall, EngineAnswer } from '../../control/vectors/vectorFile.ts';
import { flatProgram } from '../flatProgram.ts';
import { signalCodes } from '../signalCodes.ts';

type Cell = number | boolean | null;
const cellText = (cell: Cell): string => (cell === null ? '-' : String(Number(cell)));
const row = (letter: string, cells: readonly Cell[]): string => `${letter} ${cells.map(cellText).join(' ')}`;

const sensorCells = (one: SensorConfig): Cell[] => [
  one.table.length,
  ...one.table.flatMap(({ raw, tenths }) => [raw, tenths]),
  one.lowRaw,
  one.highRaw,
  one.soilLowRaw,
  one.soilHighRaw,
  one.staleAfterS,
  one.leapTenths,
  one.settleS,
];

const tankCells = (one: TankConfig): Cell[] => [
  one.minimumRaw,
  one.fallsWithWater,
  one.lowRaw,
  one.highRaw,
  one.staleAfterS,
];

const conditionCells = (conditions: Conditions): Cell[] => [
  conditions.hours?.fromS ?? null,
  conditions.hours?.toS ?? null,
  conditions.darkBelow,
  conditions.airBelowTenthsC,
  conditions.soilAboveTenthsC,
  conditions.noRain,
  conditions.batteryAboveMv,
  conditions.noSkip,
];

function lineCells({ program, conditions, guards, ...line }: LineConfig): Cell[] {
  const flat = flatProgram(program);
  return [
    line.enabled,
    line.contradicts,
    line.sensor,
    line.tank,
    line.flowMlPerMin,
    line.tubeMs,
    PROGRAM_CODES[program.kind],
    flat.startTenths,
    flat.stopTenths,
    flat.doseMl,
    flat.soakS,
    flat.mostPulses,
    flat.restS,
    flat.intervalS,
    flat.interrupts,
    flat.leader,
    flat.sharePercent,
    flat.everyNth,
    flat.slots.length,
    ...flat.slots.flatMap(({ daySecond, days }) => [daySecond, days]),
    line.fallbackMl,
    ...conditionCells(conditions),
    guards.maxRunS,
    guards.dailyMaxMl,
    guards.minIntervalS,
    guards.riseTenths,
    guards.responseS,
    guards.noRiseTimes,
    guards.provesBelowTenths,
  ];
}

export const configRow = ({ sensors, tanks, lines, atOnce }: EngineConfig): string =>
  row('T', [
    sensors.length,
    ...sensors.flatMap(sensorCells),
    tanks.length,
    ...tanks.flatMap(tankCells),
    lines.length,
    ...lines.flatMap(lineCells),
    atOnce,
  ]);

export const bootRow = (kept: Remembered): string =>
  row(
    'B',
    kept.flatMap(({ locked, noRise, pulses, watchTenths, hoursMl }) => [
      locked,
      noRise,
      pulses,
      watchTenths,
      hoursMl.length,
      ...hoursMl,
    ]),
  );

const ORDERS = { water: 0, stop: 1, unlock: 2 } as const;
const readingCells = (one: RawReading | null | undefined): Cell[] => [
  one?.raw ?? null,
  one?.unsettled === true,
];

const aroundCells = (about: Around | undefined): Cell[] => [
  about?.airTenthsC ?? null,
  about?.light ?? null,
  about?.rain ?? null,
  about?.soilTenthsC ?? null,
  about?.skip ?? null,
];

export const callRow = (input: EngineInput, { sensors, tanks, lines }: EngineConfig): string =>
  row('C', [
    input.nowS,
    ...sensors.flatMap((_, at) => readingCells(input.sensors[at])),
    ...tanks.map((_, at) => input.tanks[at]?.raw ?? null),
    input.clock?.daySecond ?? null,
    input.clock?.weekday ?? null,
    ...lines.flatMap((_, at) => aroundCells(input.around[at])),
    input.batteryMv,
    input.orders.length,
    ...input.orders.flatMap((one) => [ORDERS[one.kind], one.line, one.kind === 'water' ? one.volumeMl : 0]),
  ]);

/** The line that must come out for a call. */
export const answerRow = ({ on, why, next, events = [], write = 0 }: EngineAnswer): string =>
  [
    [...on, ...why, next, write].map(cellText).join(' '),
    ...events.map((one) => one.map(cellText).join(' ')),
  ].join(' : ');

/** Everything that goes in for a trace, and the lines that must come out. */
export function proofOf(
  config: EngineConfig,
  calls: readonly AskedCall[],
): { readonly told: readonly string[]; readonly asked: readonly string[] } {
  return {
    told: [
      configRow(config),
      ...calls.flatMap(({ boot, input }) => [
        ...(boot ? [bootRow(config.lines.map((_, at) => boot[at] ?? NOTHING))] : []),
        callRow(input, config),
      ]),
    ],
    asked: calls.map((one) => answerRow(one.asked)),
  };
}
const NOTHING = { hoursMl: [], locked: false, noRise: 0, pulses: 0, watchTenths: null };

// ---- Contacts

const EDGES = { clock: 0, sunrise: 1, sunset: 2 } as const;
const edgeCells = ({ by, s }: Edge): Cell[] => [EDGES[by], s];

/** Kind 0 and its limits, or kind 1 with its moments and the values of its cell. */
const ruleCells = ({ rule }: ContactConfig): Cell[] =>
  rule.kind === 'permit'
    ? [0, rule.startTenths, rule.stopTenths, rule.restPermits]
    : [
        1,
        ...edgeCells(rule.from),
        ...edgeCells(rule.to),
        rule.cell?.darkBelow ?? null,
        rule.cell?.brightAbove ?? null,
      ];

const contactCells = (one: ContactConfig): Cell[] => [
  one.enabled,
  one.contradicts,
  one.sensor,
  ...ruleCells(one),
  ...conditionCells(one.conditions),
  one.guards.mostOnS,
  one.guards.leastOffS,
  one.guards.dayMaxS,
];

const contactCallRow = (
  readings: EngineInput['sensors'],
  input: ContactsInput,
  contacts: readonly ContactConfig[],
): string =>
  row('E', [
    input.nowS,
    ...readings.flatMap(readingCells),
    input.clock?.daySecond ?? null,
    input.clock?.weekday ?? null,
    input.sun?.riseS ?? null,
    input.sun?.setS ?? null,
    input.batteryMv,
    ...contacts.flatMap((_, at) => aroundCells(input.around[at])),
  ]);

const contactAnswerRow = ({ is, coil, why, events = [], write = 0 }: ContactAnswer): string =>
  [
    [...is, ...coil, ...why, write].map(cellText).join(' '),
    ...events.map((one) => one.map(cellText).join(' ')),
  ].join(' : ');

/** Everything that goes in for a trace of contacts, and the lines that must come out: all but when to be called again, for a board looks each second. */
export const contactProofOf = ({
  engine,
  contacts,
  calls,
}: AskedContactCalls): ReturnType<typeof proofOf> => ({
  told: [
    row('U', [
      engine.sensors.length,
      ...engine.sensors.flatMap(sensorCells),
      contacts.length,
      ...contacts.flatMap(contactCells),
    ]),
    ...calls.flatMap(({ boot, readings, input }) => [
      ...(boot
        ? [
            row(
              'D',
              contacts.flatMap((_, at) => [boot[at]?.length ?? 0, ...(boot[at] ?? [])]),
            ),
          ]
        : []),
      contactCallRow(readings, input, contacts),
    ]),
  ],
  asked: calls.map((one) => contactAnswerRow(one.asked)),
});

// ---- Signals

const FACTS = ['isLocked', 'isWatering', 'isFaulty', 'unknown', 'isTankLow'] as const;

/** `L` rules and limits, `F` what is so in a plot; the answer is the state that is shown, "-" for none. */
export const signalProofOf = (
  rules: readonly SignalRule[],
  limits: SignalLimits,
  facts: readonly SignalFacts[],
): ReturnType<typeof proofOf> => {
  const on = rules.filter((one) => one.on);
  return {
    told: [
      row('L', [
        on.length,
        ...on.flatMap(signalCodes),
        limits.dryTenths,
        limits.wetTenths,
        limits.soilLowTenthsC,
        limits.soilHighTenthsC,
        limits.airLowTenthsC,
        limits.airHighTenthsC,
      ]),
      ...facts.map((one) =>
        row('F', [
          ...FACTS.map((key) => (key === 'unknown' ? one.unknown !== null : one[key])),
          one.tenths,
          one.soilTenthsC,
          one.airTenthsC,
          one.isDark,
        ]),
      ),
    ],
    asked: facts.map((one) => {
      const rule = signalOf(rules, one, limits);
      return rule ? String(SIGNAL_CODES[rule.state]) : '-';
    }),
  };
};
