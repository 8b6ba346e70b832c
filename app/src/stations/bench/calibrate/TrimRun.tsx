import { useEffect, useRef, useState } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { setCorrection } from '@plain-trowel/core/garden/edits/bench';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { NO_CORRECTION } from '@plain-trowel/core/temperature/correction';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { Button } from '../../../ui/Button.tsx';
import { formatDuration } from '@plain-trowel/core/quantity/format';

/** A fork with a comparator is calibrated by its screw: which number is wet, then turned in soil that is just right until it flips. */
export function TrimRun({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const channelId = parts.channel?.id ?? '';
  const raw = live.present.get(channelId)?.rawCounts ?? null;
  const now = raw === null ? null : Math.round(raw);
  const flips = useFlips(now, live.nowMs);
  const label = parts.probe?.label ?? 'the probe';
  const isWet = view.state === 'wet' || view.state === 'flooded' || view.state === 'right';
  const sayWet = (number: number) =>
    void commit(
      `${label}: ${number} is wet`,
      (before) => ({
        garden: setCorrection(
          before,
          channelId,
          number === 0
            ? NO_CORRECTION
            : // As if it were the usual comparator, which says 0 when wet.
              {
                kind: 'line',
                gain: -1,
                offset: 1,
                madeAt: isoOf(live.nowMs),
                against: 'a glass of water',
              },
        ),
      }),
      `${label}: ${number} means wet from now on.`,
    );
  return (
    <section aria-label="Set the screw">
      <p className="mt-1 text-[20px] font-semibold" role="status">
        {now === null ? (
          'No reading comes in. Connect the board first.'
        ) : (
          <>
            {label} says <span className="num text-handle">{now}</span>: {isWet ? 'wet' : 'dry'}
          </>
        )}
      </p>
      <ol className="mt-2 flex flex-col">
        <Step number={1} title="Which number is wet?">
          <p>
            Hold its tips in a glass of water, up to the line and no further. Laptop and board away from it.
          </p>
          <Button className="mt-1.5" disabled={now === null} onClick={() => sayWet(now ?? 0)}>
            {now === null ? 'This is wet' : `${now} is wet`}
          </Button>
        </Step>
        <Step number={2} title="In air it must say the other">
          <p>Take it out and wipe it dry. {now === null ? '' : `Now it says ${isWet ? 'wet' : 'dry'}.`}</p>
        </Step>
        <Step number={3} title="Turn the screw in soil that is just right">
          <p>
            Push it into soil at the point where you would water. Turn the screw slowly one way until the
            number flips, then back until it flips again: leave it there, in the middle between the two.
          </p>
          <p className="mt-1 text-[15px]" role="status">
            {flips.count === 0
              ? 'It has not flipped yet.'
              : `It has flipped ${flips.count} ${flips.count === 1 ? 'time' : 'times'}, last ${formatDuration((live.nowMs - flips.lastMs) / 1000)} ago.`}
          </p>
        </Step>
        <Step number={4} title="Look again tomorrow">
          <p>
            A fork’s metal wears and its threshold creeps. Turn it again each month, and take the fork out of
            soil that feeds people once it corrodes.
          </p>
        </Step>
      </ol>
      <p className="mt-2 text-[14px] text-soft">
        {garden.name} keeps which number is wet; the screw keeps the rest.
      </p>
    </section>
  );
}

function Step({ number, title, children }: { number: number; title: string; children: React.ReactNode }) {
  return (
    <li className="grid grid-cols-[28px_minmax(0,1fr)] gap-x-3 border-b border-rule py-2.5">
      <span aria-hidden className="num text-[19px] text-handle">
        {number}
      </span>
      <div>
        <h3 className="font-semibold">{title}</h3>
        {children}
      </div>
    </li>
  );
}

/** How often the number has flipped while one looks. */
function useFlips(now: number | null, nowMs: number): { count: number; lastMs: number } {
  const before = useRef(now);
  const [flips, setFlips] = useState({ count: 0, lastMs: 0 });
  useEffect(() => {
    if (now === null || now === before.current) return;
    if (before.current !== null) setFlips((held) => ({ count: held.count + 1, lastMs: nowMs }));
    before.current = now;
  }, [now, nowMs]);
  return flips;
}
