import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { setLimits, type PlotParts } from '@plain-trowel/core/garden/edit';
import { percentPerCount, type Curve } from '@plain-trowel/core/calibration/curve';
import { moveLimit, type LimitName, type Limits } from '@plain-trowel/core/control/limits';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { usePlot } from '../../../links/liveContext.ts';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { PlotRuler } from '../../PlotRuler.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { AnswerPanel } from './AnswerPanel.tsx';
import { BandFields } from './BandFields.tsx';
import { LimitFields } from './LimitFields.tsx';

/** Where water starts and where it stops, as flags on the ruler; and what the rules answer right now. */
export default function LimitsSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="limits" /> : <LimitsOfPlot key={plotId} plotId={plotId} />;
}

function LimitsOfPlot({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const plot = usePlot(garden, plotId);
  if (!plot) return null;
  const { parts, view } = plot;
  return parts.fit ? (
    <Calibrated parts={parts} view={view} fit={parts.fit} />
  ) : (
    <>
      <SheetHead parts={parts} title={`${parts.plot.name}: no limits yet`} />
      <p>
        Limits are set in percent, and {parts.probe?.label ?? 'this probe'} has no percent yet.{' '}
        <Link
          className="font-semibold underline underline-offset-4"
          to={sheetPath(garden.id, 'bench', 'calibrate', plotId)}
        >
          Calibrate it first
        </Link>
        ; here will then stand its ruler with a start and a stop flag.
      </p>
    </>
  );
}

function Calibrated({
  parts,
  view,
  fit,
}: {
  parts: PlotParts;
  view: NonNullable<ReturnType<typeof usePlot>>['view'];
  fit: Curve;
}) {
  // The noise of the calm references, not of this moment: a probe being moved would otherwise forbid sound limits.
  const noiseTenths = percentPerCount(fit, (fit.dryCounts + fit.wetCounts) / 2) * fit.noiseCounts * 10;
  const { draft, move, settle } = useLimitDraft(parts, noiseTenths);
  const percent = (tenths: number) => formatPercent(tenths / 10, fit.percentKind);
  const title =
    parts.line === null
      ? `${parts.plot.name}: lamp on below ${percent(draft.startTenths)}`
      : `${parts.plot.name}: water below ${percent(draft.startTenths)}, stop at ${percent(draft.stopTenths)}`;
  return (
    <>
      <SheetHead parts={parts} title={title} />
      <MismatchNote parts={parts} />
      <PlotRuler parts={parts} view={view} limits={draft} onMoveLimit={move} onLimitMoved={settle} />
      <LimitFields parts={parts} fit={fit} limits={draft} noiseTenths={noiseTenths} />
      <AnswerPanel parts={parts} />
      <BandFields parts={parts} />
    </>
  );
}

const SETTLE_MS = 600;

/** The limits while a flag is being moved; saved as one step once it rests. */
function useLimitDraft(parts: PlotParts, noiseTenths: number) {
  const { commit } = useGarden();
  const { plot } = parts;
  const [moved, setMoved] = useState<Limits | null>(null);
  const pending = useRef<Limits | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const save = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    const limits = pending.current;
    pending.current = null;
    if (!limits) return;
    const same =
      limits.startTenths === plot.limits.startTenths && limits.stopTenths === plot.limits.stopTenths;
    if (same) setMoved(null);
    else
      void commit(`limits of ${plot.name}`, (garden) => ({
        garden: setLimits(garden, plot.id, limits),
      })).then(() => setMoved(null));
  };
  const saveLatest = useRef(save);
  useEffect(() => {
    saveLatest.current = save;
  });
  // Left with a flag still warm: what was shown is saved all the same.
  useEffect(() => () => saveLatest.current(), []);

  const move = (which: LimitName, tenths: number) => {
    const limits = moveLimit(pending.current ?? plot.limits, which, tenths, noiseTenths);
    pending.current = limits;
    setMoved(limits);
  };
  const settle = () => {
    if (!pending.current) return;
    if (timer.current) clearTimeout(timer.current);
    // Arrow keys come in bursts; one burst is one step to undo.
    timer.current = setTimeout(() => saveLatest.current(), SETTLE_MS);
  };
  return { draft: moved ?? plot.limits, move, settle };
}
