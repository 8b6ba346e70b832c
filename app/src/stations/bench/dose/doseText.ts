import { LEAST_RUN_TIMES, type DoseIssue } from '@plain-trowel/core/dosing/doseFit';

/** Why there is no line yet, and the next thing to do. */
export function doseIssueText(issue: DoseIssue): string {
  switch (issue.kind) {
    case 'too-few':
      return issue.trials === 0
        ? 'Run the pump into a jug for a few seconds, read the jug, type both here. Three different run times at least, such as 5, 10 and 20 s; each twice is better.'
        : `${issue.runTimes} of ${LEAST_RUN_TIMES} different run times measured. Take one that is clearly shorter or longer.`;
    case 'not-positive':
      return 'A trial has no usable number. Leave it out, and measure again.';
    case 'no-flow':
      return 'A longer run gave no more water. Look for air in the tube, an empty tank, a kink; then measure again.';
  }
}
