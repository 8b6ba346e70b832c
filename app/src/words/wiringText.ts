/** What the checks of a wiring come to, in a line. */
import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import type { Severity } from '@plain-trowel/core/wiring/finding';

/** "All of 62 checks passed", "57 checks passed, 3 cannot tell: …", or what is to be mended. */
export function provedText({ findings, proved: { passed, unknown, missing } }: Verdict): string {
  const count = (...severities: Severity[]) =>
    findings.filter((one) => severities.includes(one.severity)).length;
  const bad = count('danger', 'fault');
  const doubtful = count('caution');
  const told = [
    bad > 0 ? `${bad} ${bad === 1 ? 'fault' : 'faults'} to mend` : '',
    doubtful > 0 ? `${doubtful} ${doubtful === 1 ? 'caution' : 'cautions'}` : '',
    unknown > 0 ? `${unknown} that cannot be told` : '',
  ].filter((text) => text !== '');
  if (bad + doubtful > 0) return `Before you connect it: ${told.join(', ')}`;
  if (unknown > 0)
    return `${passed} checks passed, ${unknown} cannot tell${missing === null ? '' : `: ${missing} is not known`}`;
  return `All of ${passed} checks passed`;
}
