import { useState } from 'react';
import type { Finding } from '@plain-trowel/core/calibration/checks';
import { workNeededSpan } from '@plain-trowel/core/calibration/workReference';
import { applyCure, curesOf, type Cure } from '@plain-trowel/core/garden/edits/cures';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Button } from '../../../ui/Button.tsx';
import { findingText } from '../../../words/calibrationText.ts';

const cureText = (cure: Cure): string =>
  cure.kind === 'exchange'
    ? `Exchange the two: ${cure.conditions[0]} and ${cure.conditions[1]}`
    : `Take ${formatCounts(Math.round(cure.rawCounts))} back (${cure.condition})`;

/** What stands against a run: the worst on top with what can be done about it, the rest folded away under it. */
export function FindingList({ run, findings }: { run: Run; findings: readonly Finding[] }) {
  const [open, setOpen] = useState(false);
  const [first, ...rest] = findings;
  if (!first) return null;
  return (
    <div className="mt-2">
      <Line run={run} finding={first} isFirst />
      {rest.length > 0 && (
        <>
          <button
            type="button"
            aria-expanded={open}
            className="press mt-1.5 text-[14px] underline underline-offset-4"
            onClick={() => setOpen(!open)}
          >
            {open ? 'Hide the rest' : rest.length === 1 ? 'One thing more' : `${rest.length} things more`}
          </button>
          {open && (
            <div className="mt-1.5 flex flex-col gap-1.5">
              {rest.map((finding, at) => (
                <Line key={`${finding.kind} ${at}`} run={run} finding={finding} />
              ))}
            </div>
          )}
        </>
      )}
    </div>
  );
}

function Line({ run, finding, isFirst = false }: { run: Run; finding: Finding; isFirst?: boolean }) {
  const { commit } = useGarden();
  const isRefused = finding.level === 'refuse';
  return (
    <div
      role={isRefused ? 'alert' : undefined}
      className={`border-l-[3px] pl-3 text-[14.5px] ${isRefused ? 'border-handle' : 'border-chaff'}`}
    >
      <p className="max-w-[78ch]">
        <b className={`font-semibold ${isRefused && isFirst ? 'text-handle' : ''}`}>
          {isRefused ? 'Refused.' : 'Mind this.'}
        </b>{' '}
        {findingText(finding)}
        {finding.kind === 'span-too-small' && (
          <>
            {' '}
            Needed: <WorkedNumber id="needed" worked={workNeededSpan(finding)} />.
          </>
        )}
      </p>
      <div className="mt-1 flex flex-wrap gap-2 empty:hidden">
        {curesOf(run, finding).map((cure) => (
          <Button
            key={cureText(cure)}
            onClick={() =>
              void commit(cureText(cure), (garden) => ({
                garden: applyCure(garden, run.channelId, cure),
              }))
            }
          >
            {cureText(cure)}
          </Button>
        ))}
      </div>
    </div>
  );
}
