import { useState } from 'react';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { TOLERANCE_FRAC, type Settling } from '@plain-trowel/core/settling/settlingWatch';
import { workEnd, workWait } from '@plain-trowel/core/settling/workSettling';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Choice } from '../../../ui/Choice.tsx';
import { intervalText, waitText } from '../../../words/settlingText.ts';

const TOLERANCES = [0.01, 0.02, 0.05] as const;

/** Where the number is going, and how long that takes for the nearness one wants. */
export function SettlingPanel({ channelId, settling }: { channelId: string; settling: Settling }) {
  const { session } = useLiveTools();
  const [tolerance, setTolerance] = useState<number>(0.02);
  const end = workEnd(settling);
  const isMoving = settling.verdict === 'settling';
  const left = isMoving ? session.within(channelId, tolerance) : null;
  const toleranceCounts = (settling.toleranceCounts / TOLERANCE_FRAC) * tolerance;
  if (!settling.end || !end) return null;
  return (
    <section aria-label="Settling" className="mt-1 border-l-[3px] border-ink pl-3">
      <p className="mt-0.5 flex flex-wrap items-center gap-x-4 gap-y-1 text-[14.5px]">
        <span>
          {isMoving ? 'Ends at' : 'End value'} <WorkedNumber id="end" worked={end} />{' '}
          <span className="text-soft">({intervalText(settling.end)}, nine times in ten)</span>
        </span>
        {left && (
          <span className="flex flex-wrap items-center gap-2">
            Wait{' '}
            <WorkedNumber
              id="wait"
              worked={workWait(settling, left, toleranceCounts)}
              shown={waitText(left)}
            />
            <span className="text-soft">until within</span>
            <Choice
              legend="Tolerance"
              options={TOLERANCES.map((value) => ({
                value,
                label: `${formatNumber(100 * value)} %`,
              }))}
              value={tolerance}
              onChange={setTolerance}
            />
            <span className="text-soft">of the span</span>
          </span>
        )}
      </p>
    </section>
  );
}
