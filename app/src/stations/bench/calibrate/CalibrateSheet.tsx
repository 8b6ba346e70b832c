import { useState } from 'react';
import { Link } from 'react-router';
import { calibrationMismatch } from '@plain-trowel/core/garden/edit';
import { fitTwoPoint, workSpan, workSpanPercent } from '@plain-trowel/core/calibration/twoPoint';
import { workNeededSpan } from '@plain-trowel/core/calibration/workReference';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive, usePlot } from '../../../links/liveContext.ts';
import { twoPointText } from '../../../words/issueText.ts';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { PlotRuler } from '../../PlotRuler.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { CaptureStep } from './CaptureStep.tsx';
import { ReferenceTable } from './ReferenceTable.tsx';

/** Two references by capture, and what the percent between them means. */
export default function CalibrateSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="calibrate" /> : <Calibrate key={plotId} plotId={plotId} />;
}

function Calibrate({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const live = useLive();
  const plot = usePlot(garden, plotId);
  // A peg to be taken anew although both stand.
  const [again, setAgain] = useState<'dry' | 'wet' | null>(null);
  if (!plot) return null;
  const { parts, view } = plot;
  const { channel, fit, board } = parts;
  if (!channel || !board) return <p>This plot has no probe on a board yet.</p>;
  const { pegs } = channel;
  const present = live.present.get(channel.id) ?? null;
  const side = again ?? (pegs.dry === null ? 'dry' : pegs.wet === null ? 'wet' : null);
  const pairIssue = pegs.dry && pegs.wet ? fitTwoPoint(pegs.dry, pegs.wet) : null;
  const mismatch = calibrationMismatch(parts);
  return (
    <>
      <SheetHead parts={parts} />
      <CaptureStep
        parts={parts}
        side={side}
        present={present}
        onSide={setAgain}
        onCaptured={() => setAgain(null)}
      />
      {pairIssue && !pairIssue.ok && (
        <p role="alert" className="mt-3 border-l-[3px] border-handle pl-3">
          <b className="font-semibold">These two references are refused.</b> {twoPointText(pairIssue.issue)}
          {pairIssue.issue.kind === 'too-close' && (
            <>
              {' '}
              Needed: <WorkedNumber id="needed" worked={workNeededSpan(pairIssue.issue)} />.
            </>
          )}
          {fit && ' The calibration made before stays in use.'}
        </p>
      )}
      {mismatch && (
        <p role="alert" className="mt-3 border-l-[3px] border-handle pl-3">
          {mismatch === 'supply'
            ? `This calibration was made at another supply voltage than the ${board.supplyV} V of today. It is void: capture both references again.`
            : 'This calibration was made on another board. It is void here: capture both references again.'}
        </p>
      )}
      <div className="mt-3">
        <PlotRuler parts={parts} view={view} limits={null} />
      </div>
      <ReferenceTable parts={parts} />
      <div className="mt-3 flex flex-col gap-1 text-[14.5px]">
        {fit ? (
          <>
            <p>
              {fit.direction === 'falling'
                ? 'Numbers fall as it gets wetter; most probes of this kind do.'
                : 'Numbers rise as it gets wetter.'}{' '}
              One percent is worth <WorkedNumber id="span" worked={workSpan(fit)} />.
              {present && view.span && view.state !== 'implausible' && (
                <>
                  {' '}
                  Now:{' '}
                  <WorkedNumber
                    id="percent"
                    lead
                    worked={workSpanPercent(fit, present.rawCounts, present.noiseCounts)}
                  />
                  {view.span.clampedAt &&
                    `, clamped ${formatCounts(Math.round(view.span.beyondCounts))} counts beyond the ${view.span.clampedAt} reference`}
                  .
                </>
              )}
            </p>
            <p className="text-soft">
              Span percent says how far between these two references the probe is, and nothing absolute. It
              holds for this probe, this board and {board.supplyV} V only.
            </p>
            <p className="mt-2">
              Next:{' '}
              <Link
                className="font-semibold underline underline-offset-4"
                to={sheetPath(garden.id, 'rules', 'limits', plotId)}
              >
                set the limits
              </Link>
              .
            </p>
          </>
        ) : (
          <p className="text-soft">
            With a dry and a wet reference the ruler gets its percent. Which way the numbers run comes out by
            itself.
          </p>
        )}
      </div>
    </>
  );
}
