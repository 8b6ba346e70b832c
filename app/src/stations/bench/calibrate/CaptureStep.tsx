import { useState } from 'react';
import { Link } from 'react-router';
import { placePeg, type PlotParts } from '@plain-trowel/core/garden/edit';
import type { PegSide, Reference } from '@plain-trowel/core/garden/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { CAPTURE_WINDOW, presentValue, type PresentValue } from '@plain-trowel/core/signal/presentValue';
import { workNoise, workPresent } from '@plain-trowel/core/signal/workPresent';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { standInOf, useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { VERDICT_WORDS } from '../../../words/settlingText.ts';
import { SettlingPanel } from '../readout/SettlingPanel.tsx';
import { StandInClock, StandInControls } from '../readout/StandInControls.tsx';

const CONDITIONS = { dry: ['air', 'dry soil'], wet: ['water', 'soaked soil'] } as const;

/** What to do with the probe, by the condition that is to be captured. */
const DO: Readonly<Record<Reference['condition'], string>> = {
  air: 'Hold the probe in air, wiped dry.',
  'dry soil': 'Push it into your soil, oven-dry, to the depth it will have.',
  water: 'Put it in water up to its printed line and no further; keep the electronics dry.',
  'soaked soil': 'Push it into your soil, soaked until it drips, to the depth it will have.',
};

/** The next step of the calibration: which condition, what the stream says, and the capture. */
export function CaptureStep({
  parts,
  side,
  present,
  onSide,
  onCaptured,
}: {
  parts: PlotParts;
  side: PegSide | null;
  present: PresentValue | null;
  onSide: (side: PegSide | null) => void;
  onCaptured: () => void;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const standIn = standInOf(live);
  const [conditions, setConditions] = useState<Record<PegSide, Reference['condition']>>({
    dry: 'air',
    wet: 'water',
  });
  const settling = live.settling.get(parts.channel?.id ?? '') ?? null;
  const isSteady = settling?.verdict === 'steady';
  const capture = useCapture(parts, side, side ? conditions[side] : 'air', onCaptured);
  useKeys([
    { key: 'c', does: 'Capture this reference', run: capture },
    { key: 'n', does: 'Go to the other reference', run: () => onSide(side === 'dry' ? 'wet' : 'dry') },
  ]);
  const title = side === null ? 'Both references stand' : `Reference ${side === 'dry' ? 1 : 2} of 2: ${side}`;
  return (
    <section aria-label="Next step" className="border-b border-rule pb-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="min-w-[260px] flex-1">
          <h2>{title}</h2>
          <p className="text-soft">
            {side === null
              ? 'Repeat one when the soil, the supply, the board or the depth has changed.'
              : DO[conditions[side]]}
          </p>
        </div>
        {side === null ? (
          <div className="flex gap-3">
            <Button onClick={() => onSide('dry')}>Dry again</Button>
            <Button hint="N" onClick={() => onSide('wet')}>
              Wet again
            </Button>
          </div>
        ) : (
          <Button
            look={isSteady ? 'primary' : 'plain'}
            hint="C"
            disabled={present === null}
            onClick={capture}
          >
            {isSteady ? 'Capture' : 'Capture all the same'}
          </Button>
        )}
      </div>
      {side !== null && (
        <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
          <Choice
            legend={`The ${side} condition`}
            options={CONDITIONS[side].map((value) => ({ value, label: value }))}
            value={conditions[side]}
            onChange={(condition) => setConditions((before) => ({ ...before, [side]: condition }))}
          />
          {present ? (
            <p className="text-[14.5px]">
              Now <WorkedNumber id="now" lead worked={workPresent(present)} />, noise{' '}
              <WorkedNumber id="noise" worked={workNoise(present)} prefix="± " />.
            </p>
          ) : (
            <p className="text-[14.5px]">
              No reading comes in.{' '}
              <Link
                className="underline underline-offset-4"
                to={sheetPath(garden.id, 'bench', 'readout', parts.plot.id)}
              >
                Connect the board first
              </Link>
              .
            </p>
          )}
        </div>
      )}
      {side !== null && present && settling && parts.channel && (
        <div className="mt-2">
          <SettlingPanel channelId={parts.channel.id} settling={settling} />
          {!isSteady && (
            <p className="mt-1 text-[14px] text-soft">
              Captured before it is steady, the reference is kept with the words “
              {VERDICT_WORDS[settling.verdict]}”.
            </p>
          )}
        </div>
      )}
      {standIn && (
        <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
          <StandInControls standIn={standIn} plotId={parts.plot.id} probeId={parts.probe?.id ?? ''} />
          <StandInClock standIn={standIn} />
        </div>
      )}
    </section>
  );
}

/** Takes the median of the last seconds as a reference; it is on disk before it is shown. */
function useCapture(
  parts: PlotParts,
  side: PegSide | null,
  condition: Reference['condition'],
  onCaptured: () => void,
): () => void {
  const { commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  return () => {
    const { channel, board } = parts;
    const buffer = channel && session.bufferOf(channel.id);
    const settling = live.settling.get(channel?.id ?? '') ?? null;
    const value = buffer && presentValue(buffer, CAPTURE_WINDOW);
    if (!channel || !board || !value || side === null) return;
    const nowIso = new Date(live.nowMs).toISOString();
    const simulated = live.source?.simulated ?? false;
    const reference: Reference = {
      condition,
      rawCounts: value.rawCounts,
      noiseCounts: value.noiseCounts,
      spreadCounts: value.spreadCounts,
      readings: value.readings,
      windowS: value.windowS,
      takenAt: nowIso,
      supplyV: board.supplyV,
      boardId: board.id,
      simulated,
      settling: settling && {
        verdict: settling.verdict,
        fromEndCounts: settling.end ? value.rawCounts - settling.end.counts : null,
      },
    };
    const common = { atMs: Math.round(live.nowMs), plotId: parts.plot.id, simulated };
    void commit(
      `${side} reference of ${parts.probe?.label ?? 'the probe'}`,
      (garden) => {
        const placed = placePeg(garden, channel.id, side, reference, { random: Math.random, nowIso });
        const events: GardenEvent[] = [
          {
            ...common,
            kind: 'reference',
            side,
            condition,
            rawCounts: value.rawCounts,
            spreadCounts: value.spreadCounts,
          },
        ];
        if (placed.calibration?.ok) {
          const { id, dry, wet } = placed.calibration.value;
          events.push({
            ...common,
            kind: 'calibrated',
            calibrationId: id,
            dryCounts: dry.rawCounts,
            wetCounts: wet.rawCounts,
          });
        }
        return { garden: placed.garden, events };
      },
      `${side === 'dry' ? 'Dry' : 'Wet'} reference saved: ${formatCounts(value.rawCounts)} counts, spread ± ${formatNumber(value.spreadCounts, 1)}.`,
    ).then((saved) => saved && onCaptured());
  };
}
