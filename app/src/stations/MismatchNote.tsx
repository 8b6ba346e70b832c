import { useState } from 'react';
import { calibrationMismatch, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { markOf, refusalOf } from '@plain-trowel/core/garden/bind/curveOf';
import { findingText, markText } from '../words/calibrationText.ts';
import { voidMeans } from '../words/voidText.ts';
import { depthText } from '../words/unitText.ts';

/** A calibration that does not belong here is told wherever its number would stand. */
export function MismatchNote({ parts }: { parts: PlotParts }) {
  const mismatch = calibrationMismatch(parts);
  const { calibration, probe, board, plot, garden } = parts;
  const refusal = mismatch === 'refused' && calibration ? refusalOf(calibration) : null;
  const mark = !mismatch && calibration ? markOf(calibration) : null;
  const depth = calibration && probe ? Math.abs(calibration.place.depthCm - probe.depthCm) : 0;
  return (
    <>
      {mismatch && (
        <p role="alert" className="mb-2 border-l-[3px] border-handle pl-3">
          {mismatch === 'supply'
            ? `This calibration was made at ${calibration?.place.supplyV ?? '?'} V, and the board runs at ${board?.supplyV ?? '?'} V today. It is void, and no percent is shown: calibrate again.`
            : mismatch === 'board'
              ? 'This calibration was made on another board. It is void here, and no percent is shown: calibrate again.'
              : `This calibration is void: no percent is shown, and no pump goes by it. ${refusal ? findingText(refusal) : ''} Calibrate again.`}{' '}
          {voidMeans(garden, plot.id).join(' ')}
        </p>
      )}
      {mark && (
        <p className="mb-2 border-l-[3px] border-handle pl-3 text-[14.5px]">
          <b className="font-semibold">{markText(mark.kinds)}</b> It was taken into use all the same, for this
          reason: “{mark.reason}”.
        </p>
      )}
      {!mismatch && calibration?.guessOf && (
        <p className="mb-2 border-l-[3px] border-chaff pl-3 text-[14.5px]">
          <b className="font-semibold">A starting guess</b>, copied from a sister probe. Every probe is its
          own: this one may be off by a tenth of its range until it is calibrated itself.
        </p>
      )}
      {!mismatch && calibration && depth > 1 && (
        <p className="mb-2 border-l-[3px] border-chaff pl-3 text-[14.5px]">
          <b className="font-semibold">Another depth.</b> It was calibrated at {calibration.place.depthCm} cm
          and sits at {depthText(probe?.depthCm ?? 0)} now. Take one reference again there and compare.
        </p>
      )}
      {!mismatch &&
        calibration &&
        calibration.place.soil !== '' &&
        calibration.place.soil !== plot.soil.name && (
          <p className="mb-2 border-l-[3px] border-chaff pl-3 text-[14.5px]">
            <b className="font-semibold">Another soil.</b> It was calibrated in “{calibration.place.soil}”,
            and the plot is said to hold “{plot.soil.name || 'nothing named'}” now. Take one reference again
            and compare.
          </p>
        )}
      {!mismatch && calibration && <DueNote due={calibration.recalibrateBy} />}
    </>
  );
}

function DueNote({ due }: { due: string | null }) {
  const [nowMs] = useState(() => Date.now());
  if (due === null || Date.parse(due) > nowMs) return null;
  return (
    <p className="mb-2 border-l-[3px] border-chaff pl-3 text-[14.5px]">
      <b className="font-semibold">Due again</b> since {due.slice(0, 10)}: probes and soils change.
    </p>
  );
}
