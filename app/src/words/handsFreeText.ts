/** What a hands-free run tells to do, and how each probe stands in it. */
import type { RestAnswer } from '@plain-trowel/core/handsFree/atRest';
import type { Answer, RunStep } from '@plain-trowel/core/handsFree/handsFree';
import type { ProbeKind } from '@plain-trowel/core/quantity/probeKind';
import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { stepWords } from './firstTestText.ts';

/** The open step in large words. */
export function stepTitle(step: RunStep, labels: readonly string[]): string {
  const who = labels.length === 1 ? (labels[0] ?? 'the probe') : `all ${labels.length} probes`;
  return step === 'air' ? `Hang ${who} in air, wiped dry` : `Now ${who} into water, up to the line`;
}

export const stepAdvice = (step: RunStep, kind: ProbeKind): string =>
  step === 'air'
    ? 'Away from your hand, and still. It is taken by itself once it rests.'
    : `${stepWords('water', kind).doThis} Laptop and board stand away from the jar, where a spill cannot reach them.`;

/** How a reading stands that is to be taken by itself. */
export const restText = (answer: RestAnswer): string =>
  answer.kind === 'wait-for-change' ? 'it still reads as in the condition before' : standText(answer);

/** How a probe stands in the open step. */
export function standText(answer: Answer): string {
  switch (answer.kind) {
    case 'taken':
      return `taken at ${formatCounts(answer.counts)}`;
    case 'ready':
      return 'taking it';
    case 'no-reading':
      return 'no reading comes in: look at its plug, or leave it out';
    case 'at-rail':
      return answer.end === 'top'
        ? 'sits at full scale: nothing is connected, or a wire is cut'
        : 'sits at zero: a short, or no supply';
    case 'spoilt':
      return 'its stream is not sound: see Readout';
    case 'wait-for-change':
      return `waiting for water, moved by ${formatNumber(100 * answer.movedFrac)} % of its usual span`;
    case 'wrong-way':
      return `runs the wrong way: its kind is ${answer.expects} in water. Were air and water exchanged, or is it another kind?`;
    case 'wait-for-rest':
      return answer.leftS === null || !Number.isFinite(answer.leftS) || answer.leftS < 1
        ? 'not at rest yet'
        : `not at rest yet, about ${formatDuration(Math.round(answer.leftS))}`;
    case 'confirm':
      return 'at rest';
  }
}
