import { byId } from '@plain-trowel/core/quantity/byId';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { setCorrection } from '@plain-trowel/core/garden/edits/bench';
import { channelName, meantValue } from '@plain-trowel/core/garden/bind/channels';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { isTemperature } from '@plain-trowel/core/quantity/quantities';
import type { Series } from '@plain-trowel/core/records/series';
import type { Stretch } from '@plain-trowel/core/signal/streamBuffer';
import { compareThermometers, type Compared } from '@plain-trowel/core/temperature/comparison';
import { sunSigns } from '@plain-trowel/core/temperature/sunBias';
import { useGarden } from '../../../../data/gardenContext.ts';
import { seriesQuery } from '../../../../data/queries.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { comparisonText, sunText } from '../../../../words/correctionText.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const NIGHT_MS = 12 * 3_600_000;
const SUN_MS = 48 * 3_600_000;

/** Corrected values of a stored series; readings without a meaning are left out. */
function meantStretch(garden: Garden, channel: Channel, series: Series | undefined, fromMs: number): Stretch {
  const pairs = [...(series?.timesMs ?? [])].flatMap((timeMs, at) => {
    const { value } = meantValue(garden, channel, series?.raw[at] ?? 0);
    return value === null || timeMs < fromMs ? [] : [[timeMs, value] as const];
  });
  return {
    timesMs: Float64Array.from(pairs, ([timeMs]) => timeMs),
    values: Float64Array.from(pairs, ([, value]) => value),
  };
}

/** The last twelve recorded hours of all thermometers side by side, and what the sun did to the ones in the air. */
export function NightPanel() {
  const { garden, commit } = useGarden();
  const live = useLive();
  const thermometers = garden.channels.filter((one) => isTemperature(one.quantity));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [trusted, setTrusted] = useState('');
  const [openedMs] = useState(live.nowMs);
  const series = useQueries({
    queries: thermometers.map((one) => seriesQuery(garden.id, one.id, openedMs - SUN_MS, openedMs)),
  });
  // One that was never logged has nothing to be compared.
  const logged = thermometers.filter((_, at) => (series[at]?.data?.timesMs.length ?? 0) > 0);
  const taken = logged.filter((one) => !left.has(one.id));
  const stretchOf = (channel: Channel, fromMs: number) =>
    meantStretch(garden, channel, series[thermometers.indexOf(channel)]?.data, fromMs);
  const compared = compareThermometers(
    taken.map((one) => ({ id: one.id, stretch: stretchOf(one, openedMs - NIGHT_MS) })),
    trusted === '' ? null : trusted,
  );
  const soil = thermometers.find((one) => one.quantity === 'soil temperature');
  const signs = thermometers
    .filter((one) => one.quantity === 'air temperature')
    .flatMap((air) =>
      sunSigns(stretchOf(air, 0), soil ? stretchOf(soil, 0) : null).map((sign) => ({ air, sign })),
    );
  const use = (rows: readonly Compared[]) =>
    void commit(
      'offsets of the night side by side',
      (before) => ({ garden: rows.reduce((next, row) => withOffset(next, row, openedMs), before) }),
      'Every thermometer has the offset of that night.',
    );
  return (
    <section aria-label="A night side by side" className="mt-2 border-t border-rule pt-3">
      <h2>A night side by side</h2>
      <p className="max-w-[66ch] text-soft">
        Put all thermometers into one box in the shade overnight while they are logged. What they differ by in
        the last twelve hours is theirs. Only compare those that lay together.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        {logged.map((one) => (
          <Check
            key={one.id}
            checked={!left.has(one.id)}
            onChange={(isIn) =>
              setLeft((before) => {
                const next = new Set(before);
                if (isIn) next.delete(one.id);
                else next.add(one.id);
                return next;
              })
            }
          >
            {channelName(garden, one)}
          </Check>
        ))}
        <Field label="They are to agree with">
          {(props) => (
            <select {...props} value={trusted} onChange={(event) => setTrusted(event.target.value)}>
              <option value="">the middle of all</option>
              {taken.map((one) => (
                <option key={one.id} value={one.id}>
                  {channelName(garden, one)}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
      {compared.ok ? (
        <>
          <table className="mt-2">
            <thead>
              <tr>
                <th>Thermometer</th>
                <th className="text-right">Off by, °C</th>
                <th className="text-right">95 % within, °C</th>
                <th className="text-right">Minutes compared</th>
              </tr>
            </thead>
            <tbody>
              {compared.value.map((row) => {
                const channel = byId(garden.channels, row.id);
                return (
                  <tr key={row.id}>
                    <td>{channel && channelName(garden, channel)}</td>
                    <td className="num text-right">{formatNumber(row.meanC, 2)}</td>
                    <td className="num text-right">± {formatNumber(row.withinC, 2)}</td>
                    <td className="num text-right">{formatNumber(row.minutes)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <div className="mt-2">
            <Button onClick={() => use(compared.value)}>Use these offsets</Button>
          </div>
        </>
      ) : (
        <p className="mt-2">{comparisonText(compared.issue)}</p>
      )}
      {signs.map(({ air, sign }) => (
        <p key={`${air.id} ${sign.kind}`} className="mt-2 border-l-[3px] border-handle pl-3">
          <b className="font-semibold">{channelName(garden, air)}:</b>{' '}
          {sunText(sign, dayTime(sign.atMs, garden.timeZone))}
        </p>
      ))}
    </section>
  );
}

/** Adds the offset of a comparison to whatever correction a channel has. */
function withOffset(garden: Garden, row: Compared, nowMs: number): Garden {
  const channel = byId(garden.channels, row.id);
  if (!channel || row.offsetC === 0) return garden;
  const made = { madeAt: isoOf(nowMs), against: 'a night side by side' };
  const { correction } = channel;
  return setCorrection(
    garden,
    row.id,
    correction.kind === 'none'
      ? { kind: 'offset', offset: row.offsetC, ...made }
      : { ...correction, offset: correction.offset + row.offsetC, ...made },
  );
}
