import { candidatesOf, type Dropped } from '@plain-trowel/core/garden/bind/decided';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { setDecides } from '@plain-trowel/core/garden/edits/plots';
import type { Plot } from '@plain-trowel/core/garden/document/schema';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { Choice } from '../../../ui/Choice.tsx';

/** A median wants three. */
const MEDIAN_OF = 3;

const DROPPED_WORDS: Readonly<Record<Dropped, string>> = {
  'no reading': 'no reading yet',
  silent: 'silent, left out',
  implausible: 'probe fault, left out',
  'out of soil': 'out of the soil, or the soil has shrunken away: left out',
  'not calibrated': 'not calibrated, left out',
  void: 'calibration void, left out',
  'another percent': 'speaks of another kind of percent, left out: calibrate it like the first',
};

/** Which of a plot's probes decide: one of them, the driest, the mean or the median; and what each of them says now. */
export function DecidesPanel({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { garden, commit } = useGarden();
  const all = candidatesOf(garden, parts.plot.id);
  if (all.length < 2) return null;
  const { by } = parts.deciders;
  const options: { value: string; label: string; decides: Plot['decides'] }[] = [
    ...all.map((one) => ({
      value: one.id,
      label: channelName(garden, one),
      decides: { by: 'one' as const, channelIds: [one.id] },
    })),
    { value: 'driest', label: 'the driest', decides: { by: 'driest', channelIds: [] } },
    { value: 'mean', label: 'the mean', decides: { by: 'mean', channelIds: [] } },
    ...(all.length >= MEDIAN_OF
      ? [{ value: 'median', label: 'the median', decides: { by: 'median' as const, channelIds: [] } }]
      : []),
  ];
  const value = by === 'one' ? (parts.channel?.id ?? '') : by;
  return (
    <section aria-label="What decides" className="mb-3">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <span>This plot goes by</span>
        <Choice
          legend="What decides this plot"
          options={options}
          value={value}
          onChange={(next) => {
            const chosen = options.find((one) => one.value === next);
            if (chosen)
              void commit(`what decides ${parts.plot.name}`, (before) => ({
                garden: setDecides(before, parts.plot.id, chosen.decides),
              }));
          }}
        />
      </p>
      {view.votes && (
        <>
          <ul aria-label="What each probe says" className="mt-1 flex flex-wrap gap-x-5 text-[14.5px]">
            {view.votes.map(({ channel, tenths, dropped }) => (
              <li key={channel.id}>
                {channelName(garden, channel)}{' '}
                {dropped === null && tenths !== null && view.scale ? (
                  <span className="num">{formatPercent(tenths / 10, view.scale)}</span>
                ) : (
                  <b className="font-semibold text-handle">{DROPPED_WORDS[dropped ?? 'no reading']}</b>
                )}
              </li>
            ))}
          </ul>
          <p className="text-[14px] text-soft">
            A probe that fails is left out and told.{' '}
            {by === 'driest'
              ? 'The driest of the others then decides.'
              : 'As long as more than half of them speak, they decide; else nothing waters.'}
          </p>
        </>
      )}
    </section>
  );
}
