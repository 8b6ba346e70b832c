import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { methodOf } from '@plain-trowel/core/calibration/methods';
import { outcomeOf } from '@plain-trowel/core/calibration/run';
import { versionsOf } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../data/gardenContext.ts';
import { usePlotScope, useProbeScope } from '../../../frame/usePlotScope.ts';
import { useLive, usePlot } from '../../../links/liveContext.ts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { useView, Views } from '../../../ui/Views.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { PlotRuler } from '../../PlotRuler.tsx';
import { ProbeSwitch } from '../../ProbeSwitch.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { HandsFreeStart } from '../handsFree/HandsFreeStart.tsx';
import { HandsFreeView } from '../handsFree/HandsFreeView.tsx';
import { uncalibratedHere } from '../handsFree/members.ts';
import { InUsePanel } from './InUsePanel.tsx';
import { MethodPicker } from './MethodPicker.tsx';
import { OutcomePanel } from './OutcomePanel.tsx';
import { MixingLadder } from './MixingLadder.tsx';
import { PointTable } from './PointTable.tsx';
import { PracticeView } from './practice/PracticeView.tsx';
import { NoProbeYet } from '../../NoProbeYet.tsx';
import { RunGuide } from './RunGuide.tsx';
import { TrimRun } from './TrimRun.tsx';
import { contextOf, runOfPlot } from './useRun.ts';
import { VersionsView } from './versions/VersionsView.tsx';

const VIEWS = ['calibrate', 'versions', 'practice'] as const;

/** What a plot's probe means by its numbers: a guided run, the versions it made, and practice without harm. */
export default function CalibrateSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="calibrate" /> : <Calibrate key={plotId} plotId={plotId} />;
}

function Calibrate({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const plot = usePlot(garden, plotId, useProbeScope());
  const open = useView(VIEWS);
  if (!plot) return null;
  const { parts, view } = plot;
  const { channel } = parts;
  if (!channel || !parts.board)
    return (
      <>
        <SheetHead parts={parts} />
        <NoProbeYet parts={parts} />
      </>
    );
  return (
    <>
      <SheetHead parts={parts} />
      <Views
        label="Views of Calibrate"
        open={open}
        views={[
          { id: 'calibrate', name: 'This probe' },
          { id: 'versions', name: 'Versions', count: versionsOf(garden, channel.id).length },
          { id: 'practice', name: 'Practice' },
        ]}
      />
      {open === 'calibrate' && (
        <>
          <ProbeSwitch parts={parts} />
          <MismatchNote parts={parts} />
          {channel.quantity === 'moisture switch' ? (
            <TrimRun key={channel.id} parts={parts} view={view} />
          ) : (
            <>
              <ThisProbe key={channel.id} parts={parts} view={view} />
            </>
          )}
        </>
      )}
      {open === 'versions' && <VersionsView parts={parts} />}
      {open === 'practice' && <PracticeView />}
    </>
  );
}

/** A probe with a number of its own works without a calibration, on its maker's word. */
const OwnScaleNote = ({ parts }: { parts: PlotParts }) => (
  <p className="mt-2 max-w-[66ch] border-l-[3px] border-ink pl-3">
    {parts.channel?.quantity === 'soil tension'
      ? `${parts.probe?.label} says tension in kPa by itself and can decide its plot as it is. Check it in water: it should fall to about 0.`
      : `${parts.probe?.label} says a percent of its own. Until it is checked against references it is factory percent: its maker’s word. A mixing series or a trusted meter makes it percent of your soil.`}
  </p>
);

/** A run under way, else the calibration in use, else the choice of a method. */
function ThisProbe({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { garden } = useGarden();
  const [again, setAgain] = useState(false);
  // From Readout the run begins at once.
  const [search, setSearch] = useSearchParams();
  const live = useLive();
  const [together, setTogether] = useState<readonly string[] | null>(() => {
    if (search.get('run') !== 'hands-free' || !parts.channel) return null;
    const all = search.get('with') === 'all' ? uncalibratedHere(garden, live.present) : [];
    return [...new Set([parts.channel.id, ...all.map((one) => one.id)])];
  });
  const leave = () => {
    setTogether(null);
    setAgain(false);
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        next.delete('run');
        next.delete('with');
        return next;
      },
      { replace: true },
    );
  };
  if (together) return <HandsFreeView channelIds={together} onDone={leave} />;
  const run = runOfPlot(garden, parts);
  const ruler = <PlotRuler parts={parts} view={view} limits={null} showsRun />;
  if (run)
    return (
      <>
        {ruler}
        <UnderWay parts={parts} run={run} />
      </>
    );
  if (parts.calibration && parts.fit && !again)
    return (
      <>
        {ruler}
        <InUsePanel parts={parts} calibration={parts.calibration} onAnew={() => setAgain(true)} />
      </>
    );
  return (
    <>
      {ruler}
      {parts.fit && !parts.calibration && <OwnScaleNote parts={parts} />}
      <HandsFreeStart parts={parts} onBegin={setTogether} />
      <MethodPicker
        parts={parts}
        onBegun={() => setAgain(false)}
        {...(again ? { onBack: () => setAgain(false) } : {})}
      />
    </>
  );
}

function UnderWay({ parts, run }: { parts: PlotParts; run: Run }) {
  const { garden } = useGarden();
  const live = useLive();
  // Worked out again when the run changes, not with every reading.
  const minuteMs = Math.floor(live.nowMs / 60_000) * 60_000;
  const { probeKind, fullScaleCounts } = contextOf(garden, parts, minuteMs);
  const outcome = useMemo(
    () => outcomeOf(run, { probeKind, fullScaleCounts, nowMs: minuteMs }),
    [run, probeKind, fullScaleCounts, minuteMs],
  );
  return (
    <>
      <RunGuide key={run.id} parts={parts} run={run} />
      {run.method === 'mixing' && <MixingLadder run={run} outcome={outcome} />}
      <PointTable points={run.points} outcome={outcome} channelId={run.channelId} isRun />
      {run.points.length > 0 && <OutcomePanel parts={parts} run={run} outcome={outcome} />}
      {run.points.length === 0 && (
        <p className="mt-3 text-[14px] text-soft">
          {methodOf(run.method).when} A run can be left and taken up again; nothing is lost by a reload.
        </p>
      )}
    </>
  );
}
