import { Scroll } from '../../../ui/Scroll.tsx';
import { clsx } from 'clsx';
import { useState } from 'react';
import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import type { Finding, Remedy, Severity } from '@plain-trowel/core/wiring/finding';
import { putOnSlip } from '../../../frame/slip.ts';
import { Button } from '../../../ui/Button.tsx';

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  danger: 'danger',
  fault: 'fault',
  caution: 'caution',
  unknown: 'cannot tell',
  note: 'at the bench',
};

/** A mark for each severity: filled for what must be mended, open for what must be looked at. */
function Mark({ severity }: { severity: Severity }) {
  return (
    <svg
      aria-hidden
      viewBox="0 0 16 16"
      className="mt-1 size-4 shrink-0"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
    >
      {severity === 'danger' && <path d="M1 2h14v12H1z M4 5l8 6 M12 5l-8 6" fill="none" />}
      {severity === 'fault' && <path d="M2 8h12 M8 2v12" transform="rotate(45 8 8)" strokeWidth="3" />}
      {severity === 'caution' && <path d="M2 12l6-9 6 9z" />}
      {severity === 'unknown' && <path d="M3 8h2 M7 8h2 M11 8h2" strokeWidth="2.4" />}
      {severity === 'note' && <path d="M3 3h10v10H3z" />}
    </svg>
  );
}

/** What the checks found, the worst first. Opened, a finding lights its wires and offers its remedies. */
export function FindingList({
  verdict,
  isOld,
  open,
  onOpen,
  onMend,
}: {
  verdict: Verdict;
  /** It is of the wiring as it was; the new verdict is being worked out. */
  isOld: boolean;
  open: Finding | null;
  onOpen: (finding: Finding | null) => void;
  onMend: (remedy: Remedy) => void;
}) {
  const [notes, setNotes] = useState(false);
  const serious = verdict.findings.filter((finding) => finding.severity !== 'note');
  const rest = verdict.findings.filter((finding) => finding.severity === 'note');
  const list = notes ? verdict.findings : serious;
  return (
    <section aria-label="Findings" aria-busy={isOld} inert={isOld} className={clsx(isOld && 'opacity-60')}>
      <ul>
        {list.map((finding, at) => {
          const isOpen = open !== null && isSame(finding, open);
          return (
            <li
              key={`${finding.check} ${at}`}
              className={clsx('border-t border-rule', isOpen && 'bg-paper-2')}
            >
              <button
                type="button"
                aria-expanded={isOpen}
                className="press flex w-full items-start gap-2.5 py-2 pr-2 pl-1 text-left"
                onClick={() => {
                  onOpen(isOpen ? null : finding);
                  if (!isOpen && finding.worked) putOnSlip(`finding ${finding.check}`, finding.worked);
                }}
              >
                <Mark severity={finding.severity} />
                <span
                  className={clsx(
                    'w-[82px] shrink-0 text-[13.5px]',
                    finding.severity === 'danger' || finding.severity === 'fault'
                      ? 'font-semibold text-handle'
                      : 'text-soft',
                  )}
                >
                  {SEVERITY_WORDS[finding.severity]}
                </span>
                <span>{finding.says}</span>
              </button>
              {isOpen && (
                <div className="pr-2 pb-3 pl-[118px] text-[14px]">
                  <p className="text-soft">
                    {verdict.results.find(({ check }) => check.id === finding.check)?.check.why}
                  </p>
                  {finding.remedies.length > 0 && (
                    <div className="mt-2 flex flex-wrap gap-2">
                      {finding.remedies.map((remedy, index) => (
                        <Button
                          key={remedy.label}
                          look={index === 0 ? 'primary' : 'plain'}
                          onClick={() => onMend(remedy)}
                        >
                          {remedy.label}
                        </Button>
                      ))}
                    </div>
                  )}
                </div>
              )}
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap items-center gap-x-5 border-t border-rule pt-1">
        {rest.length > 0 && (
          <Button look="quiet" onClick={() => setNotes(!notes)} aria-expanded={notes}>
            {notes ? 'Fold what is to do at the bench' : `${rest.length} to do at the bench`}
          </Button>
        )}
        <CheckTable verdict={verdict} />
      </div>
    </section>
  );
}

export const isSame = (one: Finding, other: Finding): boolean =>
  one.check === other.check && one.says === other.says;

/** Every check with its verdict, so that nobody has to guess what was looked at. */
function CheckTable({ verdict }: { verdict: Verdict }) {
  const { passed } = verdict.proved;
  return (
    <details className="group open:basis-full">
      <summary className="press flex items-center text-[15px] underline decoration-rule underline-offset-4">
        {passed} checks passed, {verdict.results.filter((one) => one.verdict === 'not needed').length} not
        needed
      </summary>
      <Scroll label="Every check" className="my-2">
        <table>
          <thead>
            <tr>
              <th>Check</th>
              <th>Verdict</th>
              <th>Judged by</th>
              <th className="text-right">Looked at</th>
              <th>Why it matters</th>
            </tr>
          </thead>
          <tbody>
            {verdict.results.map((result) => (
              <tr key={result.check.id}>
                <td>{result.check.title}</td>
                <td
                  className={clsx(
                    'whitespace-nowrap',
                    result.verdict === 'found' && 'font-semibold text-handle',
                    result.verdict === 'not needed' && 'text-soft',
                  )}
                >
                  {result.verdict === 'unknown' ? 'cannot tell' : result.verdict}
                </td>
                <td className="text-soft">{result.isSolved ? 'solution' : 'rule'}</td>
                <td className="num text-right">
                  {result.judged} {result.judged === 1 ? 'place' : 'places'}
                </td>
                <td className="text-soft">{result.check.why}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </details>
  );
}
