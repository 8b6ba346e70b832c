import { isoOf } from '@plain-trowel/core/quantity/moment';
import { setWarmUp } from '@plain-trowel/core/garden/edits/bench';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import type { Probe } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { poweredStretches, warmUpOf, workWarmUp } from '@plain-trowel/core/settling/warmUp';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { isDeciding } from '@plain-trowel/core/garden/bind/scale';

const TOLERANCE_FRAC = 0.02;
const RUNS_MS = 600_000;

/** How long after switching on a reading is good, measured while the board switches the probe. */
export function WarmUpPanel({ probe }: { probe: Probe }) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const channel = garden.channels.find((one) => one.probeId === probe.id && isDeciding(one.quantity));
  const supply = garden.channels.find(
    (one) => one.boardId === channel?.boardId && one.quantity === 'probe supply',
  );
  const power = supply && session.bufferOf(supply.id);
  const values = channel && session.bufferOf(channel.id);
  const tolerance = channel ? TOLERANCE_FRAC * probeScale(garden, channel).spanCounts : 1;
  const runs =
    power && values
      ? poweredStretches(power.since(live.nowMs - RUNS_MS), values.since(live.nowMs - RUNS_MS)).map((run) =>
          warmUpOf(run, tolerance),
        )
      : [];
  const good = runs.flatMap((run) => (run.ok ? [run.value] : []));
  const moving = runs.some((run) => !run.ok && run.issue.kind === 'still-moving');
  const worked = good.length > 0 ? workWarmUp(good) : null;
  return (
    <section aria-label="Warm-up" className="mt-5 border-t border-rule pt-3">
      <h2>Switched on for each reading?</h2>
      {!supply ? (
        <p className="max-w-[66ch] text-soft">
          When a pin of the board switches the probe’s supply, let the board print it beside the reading, for
          example on=1 or on=0, and say under All channels that this is the probe supply. Then the warm-up is
          measured here. To see it with a stand-in: under This probe, Try a fault on the stand-in, let it
          switch the probes; its boards then print the name on.
        </p>
      ) : (
        <p>
          {good.length} {good.length === 1 ? 'switching on' : 'switchings on'} measured in the last ten
          minutes.{' '}
          {worked && (
            <>
              Wait <WorkedNumber id="warm-up" worked={worked} /> after switching on.{' '}
              <Button
                onClick={() =>
                  void commit(
                    `warm-up of ${probe.label}`,
                    (before) => ({
                      garden: setWarmUp(before, probe.id, {
                        waitS: worked.value,
                        runs: good.length,
                        measuredAt: isoOf(live.nowMs),
                      }),
                    }),
                    `${probe.label} waits ${formatNumber(worked.value, 1)} s after switching on.`,
                  )
                }
              >
                Keep it with {probe.label}
              </Button>
            </>
          )}
          {moving && ' In some it was switched off before it had come to rest: leave it on for longer.'}
        </p>
      )}
      {probe.warmUp && (
        <p className="mt-1 text-[14px]">
          Kept: <span className="num">{formatNumber(probe.warmUp.waitS, 1)} s</span> from {probe.warmUp.runs}{' '}
          {probe.warmUp.runs === 1 ? 'run' : 'runs'},{' '}
          {dayTime(Date.parse(probe.warmUp.measuredAt), garden.timeZone)}.
        </p>
      )}
    </section>
  );
}
