/** What an input means where a condition or a lamp goes by it: tenths of a degree, mV, light, yes or no; as a table of whole numbers, for boards reckon in no others. */
import type { TablePoint } from '../calibration/boardTable.ts';
import type { Sense } from '../control/conditions/conditions.ts';
import { fullScaleOf } from '../garden/bind/channels.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { isTemperature } from '../quantity/quantities.ts';
import { meantOf } from '../temperature/correction.ts';
import { decimalsOf, rawRange, type SketchInput } from './plan.ts';

/** So many of its unit one whole number of a sense is. */
const FACTOR: Readonly<Record<Sense, number>> = {
  airTenthsC: 10,
  soilTenthsC: 10,
  light: 1,
  rain: 1,
  skip: 1,
  battery: 1000,
};

/** Rain and the switch are on from half on. */
const IS_SWITCH: ReadonlySet<Sense> = new Set(['rain', 'skip'] as const);

/** A table keeps within so much of what it stands for, in the sense's own whole numbers; truncation adds less than one. */
export const SENSE_BOUND = 1;
const MOST_POINTS = 40;

/** The table of a channel for a sense. Null where its numbers mean nothing, as those of a thermistor that nobody has described. @param read how the board reads it */
export function senseTable(
  garden: Garden,
  channel: Channel,
  sense: Sense,
  read: Pick<SketchInput, 'reads' | 'register' | 'asked'> & { readonly adcBits: number },
): readonly TablePoint[] | null {
  // Bare counts are no degrees.
  const isBare = channel.correction.kind === 'none' || channel.correction.kind === 'offset';
  if (isBare && read.reads === 'analog' && isTemperature(channel.quantity)) return null;
  const [low, high] = rawRange(read);
  const factor = FACTOR[sense];
  const scale = 10 ** decimalsOf(read);
  const full = fullScaleOf(garden, channel);
  const exactly = (raw: number): number | null => {
    const meant = meantOf(channel, raw / scale, full);
    if (meant === null) return null;
    return IS_SWITCH.has(sense) ? (meant >= 0.5 ? 1 : 0) : meant * factor;
  };
  const whole = (raw: number): TablePoint | null => {
    const value = exactly(raw);
    return value === null ? null : { raw, tenths: Math.round(value) };
  };
  // What a thermometer says while it has not measured lies inside of what it may say.
  const known = stretchOf(low, high, (raw) => exactly(raw) !== null);
  if (!known) return null;
  const points = stretches(known[0], known[1], exactly, whole);
  return points.length >= 2 && points.length <= MOST_POINTS ? points : null;
}

/** The longest run of raw values that mean something, looked for from the middle. */
function stretchOf(low: number, high: number, holds: (raw: number) => boolean): [number, number] | null {
  const middle = Math.round((low + high) / 2);
  const within = holds(middle) ? middle : holds(high) ? high : holds(low) ? low : null;
  if (within === null) return null;
  return [edge(within, low, holds), edge(within, high, holds)];
}

/** How far it holds from one end to the other, by halving: it holds in one piece. */
function edge(from: number, to: number, holds: (raw: number) => boolean): number {
  if (holds(to)) return to;
  let [good, bad] = [from, to];
  while (Math.abs(good - bad) > 1) {
    const middle = Math.round((good + bad) / 2);
    if (middle === good || middle === bad) break;
    if (holds(middle)) good = middle;
    else bad = middle;
  }
  return good;
}

/** Each stretch reaches as far as its straight line stays close. Source: Imai & Iri 1986, as for a calibration's table. */
function stretches(
  low: number,
  high: number,
  exactly: (raw: number) => number | null,
  whole: (raw: number) => TablePoint | null,
): readonly TablePoint[] {
  const first = whole(low);
  if (!first) return [];
  const points = [first];
  let at = first;
  while (at.raw < high && points.length <= MOST_POINTS) {
    let [near, far] = [at.raw + 1, high];
    const isClose = (to: number): boolean => {
      const end = whole(to);
      return end !== null && staysClose(at, end, exactly);
    };
    if (isClose(far)) near = far;
    while (far - near > 1) {
      const middle = Math.floor((near + far) / 2);
      if (isClose(middle)) near = middle;
      else far = middle;
    }
    const next = whole(near);
    if (!next) break;
    points.push(next);
    at = next;
  }
  return points;
}

const LOOKS = 64;
function staysClose(from: TablePoint, to: TablePoint, exactly: (raw: number) => number | null): boolean {
  const apart = to.raw - from.raw;
  for (let look = 1; look < Math.min(LOOKS, apart); look += 1) {
    const raw = from.raw + Math.round((apart * look) / Math.min(LOOKS, apart));
    const line = from.tenths + ((to.tenths - from.tenths) * (raw - from.raw)) / apart;
    const value = exactly(raw);
    if (value === null || Math.abs(value - line) > SENSE_BOUND) return false;
  }
  return true;
}
