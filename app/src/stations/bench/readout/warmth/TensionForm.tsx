import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useState } from 'react';
import { channelName, fullScaleOf } from '@plain-trowel/core/garden/bind/channels';
import { setCorrection } from '@plain-trowel/core/garden/edits/bench';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { NO_CORRECTION, tensionLine } from '@plain-trowel/core/temperature/correction';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { tensionIssueText } from '../../../../words/correctionText.ts';

/** No reading before somebody has taken or typed one. */
type Point = { readonly read: number | null; readonly trusted: number };

const POINTS = [
  {
    name: 'In water',
    how: 'Its tip in water, the sensor level with the water: 0 kPa. A sensor higher up reads 1 kPa more for each 10 cm.',
  },
  {
    name: 'At a suction',
    how: 'By a gauge and a hand pump at its tube; or by its sheet, which says how many volts it gives at how many kPa. Counts are the volts at the pin ÷ the board’s supply × full scale; a divider before the pin makes them less.',
  },
] as const;

/** From a tensiometer’s counts to kPa, through two points. */
export function TensionForm({ channel, onDone }: { channel: Channel; onDone: () => void }) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const full = fullScaleOf(garden, channel);
  const [points, setPoints] = useState<readonly [Point, Point]>([
    { read: null, trusted: 0 },
    { read: null, trusted: 60 },
  ]);
  const now = session.bufferOf(channel.id)?.last()?.value;
  const change = (at: number, part: Partial<Point>) => {
    const [first, second] = points.map((one, place) => (place === at ? { ...one, ...part } : one));
    if (first && second) setPoints([first, second]);
  };
  const [water, pulled] = points.map(({ read, trusted }) => (read === null ? null : { read, trusted }));
  const line = water && pulled ? tensionLine(water, pulled, full) : null;
  const name = channelName(garden, channel);
  const keep = () => {
    if (!line?.ok || !water || !pulled) return;
    const against = `${formatNumber(water.trusted, 1)} and ${formatNumber(pulled.trusted, 1)} kPa at ${formatCounts(water.read)} and ${formatCounts(pulled.read)} counts`;
    void commit(
      `set what ${name} means`,
      (before) => ({
        garden: setCorrection(before, channel.id, {
          kind: 'line',
          ...line.value,
          madeAt: isoOf(live.nowMs),
          against,
        }),
      }),
      `${name} is read in kPa.`,
    ).then((saved) => saved && onDone());
  };
  const takeAway = () =>
    void commit(`take the line of ${name} away`, (before) => ({
      garden: setCorrection(before, channel.id, NO_CORRECTION),
    })).then((saved) => saved && onDone());
  return (
    <section aria-label={`Correct ${name}`} className="mb-4 border-l-[3px] border-ink pl-4">
      <h2>What {name} means</h2>
      <p className="mt-1 max-w-[66ch] text-soft">
        A tensiometer on an analog pin gives counts. Two points make them kPa. One that prints kPa by itself
        needs none.
      </p>
      {POINTS.map(({ name: point, how }, at) => (
        <div key={point} className="mt-3">
          <div className="flex flex-wrap items-end gap-4">
            <div className="w-[150px]">
              <NumberField
                label={`${point}: tension`}
                unit="kPa"
                value={points[at]?.trusted ?? 0}
                least={-5}
                most={100}
                whole={false}
                decimals={1}
                onKeep={(trusted) => change(at, { trusted })}
              />
            </div>
            <div className="w-[170px]">
              <NumberField
                label={`${point}: reading`}
                unit="counts"
                value={points[at]?.read ?? 0}
                least={0}
                most={full}
                whole
                decimals={0}
                onKeep={(read) => change(at, { read })}
              />
            </div>
            <Button
              look="plain"
              disabled={now === undefined}
              onClick={() => now !== undefined && change(at, { read: Math.round(now) })}
            >
              {now === undefined ? 'No reading comes in' : `Take the reading, ${formatCounts(now)}`}
            </Button>
          </div>
          <p className="mt-1 max-w-[66ch] text-[14px] text-soft">{how}</p>
        </div>
      ))}
      <p className="mt-3 max-w-[66ch]" role="status">
        {!line
          ? 'Take or type the reading at each of the two.'
          : line.ok
            ? `A count is ${formatNumber(Math.abs(line.value.gain), 3)} kPa; the board can tell ${formatNumber(Math.min(line.value.offset, line.value.offset + line.value.gain * full), 0)} to ${formatNumber(Math.max(line.value.offset, line.value.offset + line.value.gain * full), 0)} kPa.`
            : tensionIssueText(line.issue)}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-4">
        <Button look="primary" disabled={!line?.ok} onClick={keep}>
          Read it in kPa
        </Button>
        <button type="button" className="press underline underline-offset-4" onClick={onDone}>
          Leave it as it is
        </button>
        {channel.correction.kind !== 'none' && (
          <button type="button" className="press underline underline-offset-4" onClick={takeAway}>
            Take the line away
          </button>
        )}
      </p>
    </section>
  );
}
