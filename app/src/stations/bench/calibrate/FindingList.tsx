import type { Finding } from '@plain-trowel/core/calibration/checks';
import { workNeededSpan } from '@plain-trowel/core/calibration/workReference';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { findingText } from '../../../words/calibrationText.ts';

/** What stands against a calibration: refusals first, then warnings. */
export function FindingList({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  const sorted = [...findings].sort((a, b) => Number(a.level === 'warn') - Number(b.level === 'warn'));
  return (
    <ul className="mt-2 flex flex-col gap-1.5">
      {sorted.map((finding, at) => (
        <li
          key={`${finding.kind} ${at}`}
          role={finding.level === 'refuse' ? 'alert' : undefined}
          className={`border-l-[3px] pl-3 text-[14.5px] ${finding.level === 'refuse' ? 'border-handle' : 'border-chaff'}`}
        >
          <b className="font-semibold">{finding.level === 'refuse' ? 'Refused.' : 'Mind this.'}</b>{' '}
          {findingText(finding)}
          {finding.kind === 'span-too-small' && (
            <>
              {' '}
              Needed: <WorkedNumber id="needed" worked={workNeededSpan(finding)} />.
            </>
          )}
        </li>
      ))}
    </ul>
  );
}
