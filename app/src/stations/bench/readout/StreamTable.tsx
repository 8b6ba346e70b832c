import { formatNumber } from '@plain-trowel/core/quantity/format';
import { workRate } from '@plain-trowel/core/signal/workRate';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive } from '../../../links/liveContext.ts';
import { RefusedLines } from './RefusedLines.tsx';

/** What came in: lines counted, their rate, and the ones that could not be read, with the reason. */
export function StreamTable() {
  const live = useLive();
  return (
    <>
      <p className="mt-2 text-[14px]">
        Lines come at <WorkedNumber id="rate" worked={workRate(live.recent.lines, live.recent.durationS)} />.
      </p>
      <details className="text-[14px]">
        <summary className="press py-1">
          <span className="num">{formatNumber(live.understood)}</span> lines read;{' '}
          <b className={live.notUnderstood > 0 ? 'font-semibold text-handle' : 'font-normal'}>
            <span className="num">{formatNumber(live.notUnderstood)}</span> not understood
          </b>
        </summary>
        {live.badLines.length === 0 ? (
          <p className="text-soft">
            Understood are numbers alone or with their names and units, in words, pairs, columns with or
            without a header, and one JSON object a line.
          </p>
        ) : (
          <RefusedLines />
        )}
      </details>
    </>
  );
}
