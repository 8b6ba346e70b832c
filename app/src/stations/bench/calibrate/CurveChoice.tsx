import type { CurveKind } from '@plain-trowel/core/calibration/curve';
import type { Outcome } from '@plain-trowel/core/calibration/run';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { CURVE_WORDS, fitIssueText } from '../../../words/calibrationText.ts';

/** The kinds of curve with what each misses its points by when they are left out; the simplest that is not clearly beaten is taken. */
export function CurveChoice({
  outcome,
  kind,
  onPick,
}: {
  outcome: Outcome;
  kind: CurveKind;
  onPick: (kind: CurveKind) => void;
}) {
  const unit = percentUnit(outcome.percentKind);
  return (
    <fieldset className="mt-2">
      <legend className="text-[13.5px] text-soft">
        Curve: error of points that were left out of the fit. The simplest is taken unless another is clearly
        better.
      </legend>
      <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        {outcome.tried.map((one) => (
          <label key={one.kind} className="press flex items-center gap-2 text-[14.5px]">
            <input
              type="radio"
              name="curve"
              className="size-4.5 accent-handle"
              checked={kind === one.kind}
              disabled={!one.curve.ok}
              onChange={() => onPick(one.kind)}
            />
            <span className={one.curve.ok ? '' : 'text-soft'}>
              {CURVE_WORDS[one.kind]}{' '}
              <span className="text-soft">
                {one.curve.ok
                  ? one.leftOutPercent === null
                    ? '(nothing to leave out)'
                    : `(${formatNumber(one.leftOutPercent, 1)} ${unit})`
                  : `(${fitIssueText(one.curve.issue)})`}
                {outcome.chosen === one.kind && ' ← taken'}
              </span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
