/** Readings as a SenML pack (RFC 8428, JSON): the raw record of each channel under its id, with seconds since 1970. */
import { rememberedNumbers } from '../quantity/remembered.ts';
import { GrowingBytes, inUtf8, MOST_REMEMBERED } from '../records/growingBytes.ts';
import { FLAGS, type Series } from '../records/series.ts';

/** SenML's names (RFC 8428, 12.1) for units of recorded numbers; another unit has none there. */
const SENML_UNITS: Readonly<Record<string, string>> = {
  '°C': 'Cel',
  V: 'V',
  '% RH': '%RH',
  pH: 'pH',
  'raw counts': 'count',
};

/**
 * Writes the records of one channel in UTF-8, each with a comma in front. SenML has no word for a reading of a stand-in, nor for one that stands beside another:
 * both are left out, or they would come back as measured.
 */
export function senmlWriter(channel: {
  readonly id: string;
  readonly unit: string;
}): (series: Series) => Uint8Array<ArrayBuffer> {
  const u = SENML_UNITS[channel.unit];
  const named = JSON.stringify({ n: channel.id, ...(u === undefined ? {} : { u }) });
  const beginning = inUtf8(`,\n${named.slice(0, -1)},"t":`);
  const ending = rememberedNumbers((raw: number) => inUtf8(`,"v":${String(raw)}}`), MOST_REMEMBERED);
  const records = new GrowingBytes();
  return ({ timesMs, raw, flags }) => {
    for (let at = 0; at < raw.length; at += 1) {
      if (((flags[at] ?? 0) & (FLAGS.simulated | FLAGS.beside)) !== 0) continue;
      records.put(beginning);
      records.putAscii(String((timesMs[at] ?? 0) / 1000));
      records.put(ending(raw[at] ?? 0));
    }
    return records.take();
  };
}
