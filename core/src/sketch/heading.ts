/** What stands above a board's program: what its numbers rest on, and which pin is wired to what. */
import { calibrationOf } from '../garden/bind/decided.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import type { Garden } from '../garden/document/schema.ts';
import { plusMinusAt } from '../live/readingNow.ts';
import { byId } from '../quantity/byId.ts';
import { formatNumber } from '../quantity/format.ts';
import { PERCENT_KINDS, type PercentKind } from '../quantity/percentKind.ts';
import type {
  SketchBus,
  SketchDisplay,
  SketchInput,
  SketchLamp,
  SketchLine,
  SketchPower,
  SketchSleep,
} from './plan.ts';
import type { Pin } from './pins.ts';

export const pinName = ({ kind, number }: Pin): string => `${kind === 'pin' ? 'P' : 'IN'}${number}`;

/** One line each. `sensors` are the inputs that water lines and contacts go by. */
export const headingOf = (
  garden: Garden,
  {
    inputs,
    powers,
    sensors,
    lines,
    lamps,
    displays,
    bus,
    sleep,
  }: {
    readonly inputs: readonly SketchInput[];
    readonly powers: readonly SketchPower[];
    readonly sensors: readonly SketchInput[];
    readonly lines: readonly SketchLine[];
    readonly lamps: readonly SketchLamp[];
    readonly displays: readonly SketchDisplay[];
    readonly bus: SketchBus | null;
    readonly sleep: SketchSleep | null;
  },
): readonly string[] => [
  ...new Set(sensors.flatMap((input) => calibrationLine(garden, input))),
  ...inputs.map((input) =>
    input.far
      ? `no pin: ${input.label} is read by ${input.far.board}; the gateway tells it`
      : `${pinsOf(input, bus).map(pinName).join(' and ')}${byOf(input)}: reads ${input.label}, printed as ${input.name}`,
  ),
  ...(sleep
    ? [`it sleeps between readings, ${sleep.everyS} s from one waking to the next, with nothing at its pins`]
    : []),
  ...(bus?.direction ? [`${pinName(bus.direction)}: lets the transceiver of the bus speak, while high`] : []),
  ...powers.map(
    ({ pin, waitS, everyS }, at) =>
      `${pinName(pin)}: feeds ${inputs.flatMap(({ power, label }) => (power === at ? [label] : [])).join(', ')} only to be read, ${waitS} s before, every ${everyS} s`,
  ),
  ...lines.map(({ name, output: { pin, activeLow, pulses, latch } }) =>
    latch
      ? `${pinName(pin)} and ${pinName(latch.shut)}: open and shut ${name} by pulses of ${latch.ms} ms; it stays as it is when its supply fails`
      : pulses
        ? `${pinName(pin)}: turns the servo of ${name}, ${pulses.offUs} us shut, ${pulses.onUs} us open; it stays where it is when its supply fails`
        : `${pinName(pin)}: switches ${name}, on when ${activeLow ? 'low' : 'high'}`,
  ),
  ...lamps.map(
    ({ name, kind, pins }) =>
      `${pins.map(({ pin }) => pinName(pin)).join(', ')}: ${kind === 'buzzer' ? 'sounds' : 'lights'} ${name}${kind === 'three' ? ' in red, green and blue' : ''}`,
  ),
  ...displays.map(
    ({ name, sda, scl, address }) =>
      `${pinName(sda)} and ${pinName(scl)}, I2C at 0x${address.toString(16)}: writes on ${name}`,
  ),
];

/** What hangs on the pins together with others. */
const byOf = ({ reads, asked }: SketchInput): string =>
  reads === 'bus' ? ', the bus' : asked ? `, I2C at 0x${asked.address.toString(16)}` : '';

const pinsOf = ({ reads, pin, second }: SketchInput, bus: SketchBus | null): readonly Pin[] =>
  bus && reads === 'bus' ? [bus.tx, bus.rx] : [pin, ...(second ? [second] : [])];

/** "% span", "kPa", "counts" */
export const unitOf = (kind: PercentKind): string =>
  NO_PERCENT.has(kind) ? PERCENT_KINDS[kind].short : `% ${PERCENT_KINDS[kind].short}`;

const NO_PERCENT: ReadonlySet<PercentKind> = new Set(['tension', 'counts', 'switch'] as const);

/** "C2: calibrated 2026-05-01 with 2 points, ±2.1 % span at its start limit of 40.0 % span" */
function calibrationLine(garden: Garden, { channelId, label }: SketchInput): string[] {
  const channel = byId(garden.channels, channelId);
  const calibration = channel && calibrationOf(garden, channel);
  if (!channel || !calibration) return [];
  const plot = garden.plots.find(({ id }) => plotParts(garden, id)?.channel?.id === channelId);
  const parts = plot && plotParts(garden, plot.id, channelId);
  const start = (plot?.limits.startTenths ?? 0) / 10;
  const unit = unitOf(calibration.percentKind);
  const plusMinus = parts && plusMinusAt(parts, start);
  return [
    [
      `${label}: calibrated ${calibration.madeAt.slice(0, 10)} with ${calibration.points.length} points`,
      ...(plusMinus == null
        ? []
        : [`±${formatNumber(plusMinus, 1)} ${unit} at its start limit of ${formatNumber(start, 1)} ${unit}`]),
    ].join(', '),
  ];
}
