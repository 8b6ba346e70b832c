/** Readings as a SenML pack (RFC 8428, JSON): the raw record of each channel under its id, with seconds since 1970. */
import { FLAGS, type Reading } from '../records/series.ts';

/** SenML's names (RFC 8428, 12.1) for units of recorded numbers; another unit has none there. */
const SENML_UNITS: Readonly<Record<string, string>> = {
  '°C': 'Cel',
  V: 'V',
  '% RH': '%RH',
  pH: 'pH',
  'raw counts': 'count',
};

/**
 * Records of one channel, each with a comma in front but for the very first of a pack. SenML has no word for a reading of a stand-in, nor for one that stands beside another:
 * both are left out, or they would come back as measured.
 */
export function senmlRecords(
  channel: { readonly id: string; readonly unit: string },
  readings: readonly Reading[],
  isFirst: boolean,
): string {
  const u = SENML_UNITS[channel.unit];
  return readings
    .filter(({ flags }) => (flags & (FLAGS.simulated | FLAGS.beside)) === 0)
    .map(({ timeMs, raw }, at) => {
      const record = JSON.stringify({
        n: channel.id,
        ...(u === undefined ? {} : { u }),
        t: timeMs / 1000,
        v: raw,
      });
      return `${isFirst && at === 0 ? '' : ','}\n${record}`;
    })
    .join('');
}
