/** What a number that a board prints probably is: a suggestion for a person to confirm, by its unit, its name and its size. */
import { fullScaleCounts } from '../../electrics/converter.ts';
import { isDeciding, type Deciding } from './scale.ts';
import { byId } from '../../quantity/byId.ts';
import type { Quantity } from '../../quantity/quantities.ts';
import type { Channel, Garden } from '../document/schema.ts';

/** A number that nobody has claimed. */
export type Unclaimed = {
  readonly boardId: string;
  readonly name: string;
  readonly last: number;
  /** As the board printed it; null where it printed none. */
  readonly unit: string | null;
};

export type Claim =
  /** The moisture of a probe that waits for its number. */
  | { readonly kind: 'channel'; readonly channelId: string }
  /** The moisture of a plot that has no probe yet: raw, or in numbers of its own. */
  | { readonly kind: 'new probe'; readonly plotId: string; readonly quantity: Deciding }
  /** Something that the board measures beside moisture. */
  | { readonly kind: 'board'; readonly quantity: Quantity }
  /** Another quantity of a plot's probe. */
  | { readonly kind: 'probe'; readonly probeId: string; readonly quantity: Quantity }
  | { readonly kind: 'ignore' };

const VOLTS = new Set(['V', 'volts', 'volt']);
const DEGREES = new Set(['°C', 'C', '°', 'degC']);
/** Taken as °C or V they would look right and be wrong: these are left for a person to say. */
const OTHER_SCALES = new Set(['°F', 'F', 'degF', 'K', 'mV', 'mA']);
const LUX = new Set(['lux', 'lx']);
const LENGTHS = new Set(['cm', 'mm', 'm']);

const NAMES = {
  temperature: /temp|celsius|°c|grad|^t\d{0,2}$|^ts?oil$/i,
  air: /air|room|ambient|luft|hatch|box/i,
  battery: /bat|akku|vcc|vbat|vin|supply|volt/i,
  light: /lux|light|ldr|licht|hell|bright|photo/i,
  tank: /tank|level|dist|float|pegel|reservoir|cm$/i,
  humidity: /humid|\brh\b|^h(?:um)?\d{0,2}$/i,
  service: /pump|valve|relay|time|milli|count|^n$|seq|^id$|uptime|state|rssi|heap|version|error|free|duty/i,
  moisture: /soil|moist|feucht|erde|wet|raw|adc|^a\d{1,2}$|sensor|probe|plant|pot|value/i,
} as const;

const isOf = (name: string, of: keyof typeof NAMES) => NAMES[of].test(name);

/** Moisture channels of a board that have not been heard from under the name they listen to, those of a plot first. */
export function waitingChannels(
  garden: Garden,
  boardId: string,
  heard: ReadonlySet<string>,
  plotId: string | null,
): Channel[] {
  const isOfPlot = (channel: Channel) => byId(garden.probes, channel.probeId)?.plotId === plotId;
  return garden.channels
    .filter((one) => one.boardId === boardId && isDeciding(one.quantity) && !heard.has(one.streamName))
    .toSorted((one, other) => Number(isOfPlot(other)) - Number(isOfPlot(one)));
}

/** What is not moisture by its unit or name; null where it may be. */
function besideMoisture({ name, unit, last }: Unclaimed): Quantity | 'ignore' | null {
  if (isOf(name, 'service') || (unit !== null && OTHER_SCALES.has(unit))) return 'ignore';
  if ((unit !== null && DEGREES.has(unit)) || isOf(name, 'temperature'))
    return isOf(name, 'air') ? 'air temperature' : 'soil temperature';
  if ((unit !== null && LUX.has(unit)) || isOf(name, 'light')) return 'light';
  if (isOf(name, 'humidity')) return 'other';
  // The board's own percent is not counts: kept apart, it is calibrated by nobody.
  if (unit === '%' || /%/.test(name)) return 'factory moisture';
  if (isOf(name, 'battery') || (unit !== null && VOLTS.has(unit) && last > 3.4)) return 'battery voltage';
  if ((unit !== null && LENGTHS.has(unit)) || isOf(name, 'tank')) return 'distance';
  return null;
}

/**
 * One suggestion for each number, in order: what its unit or name says; then moisture for the probes and plots that wait; the rest is ignored.
 * @param heard names that the board prints at all
 */
export function suggestClaims(
  garden: Garden,
  unclaimed: readonly Unclaimed[],
  heard: ReadonlySet<string>,
  plotId: string | null,
): Claim[] {
  const waiting = new Map<string, Channel[]>();
  const bare = garden.plots
    .filter((plot) => !garden.probes.some((probe) => probe.plotId === plot.id))
    .toSorted((one, other) => Number(other.id === plotId) - Number(one.id === plotId));
  const probeOf = (id: string | null) => garden.probes.find((probe) => probe.plotId === id);
  // Numbers that say themselves that they are moisture come before those that only might be.
  const order = unclaimed
    .map((one, at) => ({ one, at }))
    .toSorted((a, b) => Number(isOf(b.one.name, 'moisture')) - Number(isOf(a.one.name, 'moisture')));
  const claims = unclaimed.map((): Claim => ({ kind: 'ignore' }));
  for (const { one, at } of order) {
    const beside = besideMoisture(one);
    if (beside === 'ignore') continue;
    if (beside !== null) {
      const probe = probeOf(plotId);
      const ofProbe = beside === 'soil temperature' || beside === 'factory moisture';
      if (!ofProbe) claims[at] = { kind: 'board', quantity: beside };
      else if (probe) claims[at] = { kind: 'probe', probeId: probe.id, quantity: beside };
      else if (beside === 'factory moisture') {
        // A board that says percent only: its own percent decides.
        const plot = bare.shift();
        if (plot) claims[at] = { kind: 'new probe', plotId: plot.id, quantity: 'factory moisture' };
      } else claims[at] = { kind: 'board', quantity: 'air temperature' };
      continue;
    }
    const board = byId(garden.boards, one.boardId);
    const isCounts = one.last >= 0 && one.last <= fullScaleCounts(board?.adcBits ?? 24) * 1.001;
    if (!isCounts) continue;
    const queue = waiting.get(one.boardId) ?? waitingChannels(garden, one.boardId, heard, plotId);
    waiting.set(one.boardId, queue);
    const channel = queue.shift();
    const plot = channel ? undefined : bare.shift();
    if (channel) claims[at] = { kind: 'channel', channelId: channel.id };
    else if (plot) claims[at] = { kind: 'new probe', plotId: plot.id, quantity: 'moisture' };
  }
  return claims;
}
