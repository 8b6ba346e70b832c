/**
 * Air and water for one probe or many, hands-free: the run says what to do, believes a step only after a change of the right size and direction and then rest,
 * captures by itself, and goes on. What no number shows (wiped, in up to the line) is confirmed once. A pure reducer: readings come in, a state goes out.
 */
import type { PresentValue } from '../signal/presentValue.ts';
import { hasStopped, STOPPED_FRAC, type Settling } from '../settling/settlingWatch.ts';

export const RUN_STEPS = ['air', 'water'] as const;
export type RunStep = (typeof RUN_STEPS)[number];

/** What was captured of a probe in a step. */
export type Taken = {
  readonly value: PresentValue;
  readonly settling: Pick<Settling, 'verdict' | 'end'>;
};

export type HandsFree = {
  readonly step: RunStep | 'done';
  /** Channels that take part. */
  readonly channelIds: readonly string[];
  /** The person has said that the probes are wiped and in up to the line. */
  readonly isConfirmed: boolean;
  /** Channels whose odd direction the person has accepted. */
  readonly allowed: readonly string[];
  readonly taken: Readonly<Record<string, Readonly<Partial<Record<RunStep, Taken>>>>>;
};

/** What comes in of one channel at one moment. */
export type Seen = {
  readonly channelId: string;
  /** The reading now, and what would be captured of it: only readings after the last change. Null while nothing comes or too little has come. */
  readonly now: PresentValue | null;
  readonly capture: PresentValue | null;
  readonly settling: Settling | null;
  /** Something is wrong with its stream that spoils the number. */
  readonly isSpoilt: boolean;
  /** Usual way from air to water, counts, and the window of plausible numbers. */
  readonly spanCounts: number;
  readonly lowCounts: number;
  readonly highCounts: number;
  /** Which way its kind goes in water; null where that depends on the wiring. */
  readonly expects: 'falling' | 'rising' | null;
};

export type Answer =
  | { readonly kind: 'taken'; readonly counts: number }
  | { readonly kind: 'no-reading' }
  | { readonly kind: 'at-rail'; readonly end: 'top' | 'bottom' }
  | { readonly kind: 'spoilt' }
  /** Moved by a share of its usual span so far, of the share that is needed. */
  | { readonly kind: 'wait-for-change'; readonly movedFrac: number }
  | { readonly kind: 'wrong-way'; readonly expects: 'falling' | 'rising' }
  | { readonly kind: 'wait-for-rest'; readonly leftS: number | null }
  /** Everything is there but the person's word. */
  | { readonly kind: 'confirm' }
  | { readonly kind: 'ready'; readonly taken: Taken };

/** Water moves a probe by this share of its usual span at least, and by so many times its noise. */
export const WATER_FRAC = 0.3;
const NOISES = 6;

export const beginHandsFree = (channelIds: readonly string[]): HandsFree => ({
  step: 'air',
  channelIds,
  isConfirmed: false,
  allowed: [],
  taken: {},
});

/** How a channel stands in the open step. */
export function judgeSeen(state: HandsFree, seen: Seen): Answer {
  if (state.step === 'done') return { kind: 'no-reading' };
  const held = state.taken[seen.channelId]?.[state.step];
  if (held) return { kind: 'taken', counts: held.value.rawCounts };
  const { now, capture, settling, spanCounts } = seen;
  if (!now) return { kind: 'no-reading' };
  if (now.rawCounts > seen.highCounts) return { kind: 'at-rail', end: 'top' };
  if (now.rawCounts < seen.lowCounts) return { kind: 'at-rail', end: 'bottom' };
  if (seen.isSpoilt) return { kind: 'spoilt' };
  if (state.step === 'water') {
    const air = state.taken[seen.channelId]?.air?.value.rawCounts ?? now.rawCounts;
    const moved = now.rawCounts - air;
    const isMoved = Math.abs(moved) > WATER_FRAC * spanCounts && Math.abs(moved) > NOISES * now.noiseCounts;
    if (!isMoved) return { kind: 'wait-for-change', movedFrac: Math.abs(moved) / spanCounts };
    const goes = moved < 0 ? 'falling' : 'rising';
    if (seen.expects !== null && goes !== seen.expects && !state.allowed.includes(seen.channelId))
      return { kind: 'wrong-way', expects: seen.expects };
  }
  if (!settling || !hasStopped(settling.verdict) || !capture || !isAtEnd(capture, settling, spanCounts))
    return { kind: 'wait-for-rest', leftS: settling?.left ? settling.left.likelyS : null };
  if (state.step === 'water' && !state.isConfirmed) return { kind: 'confirm' };
  return {
    kind: 'ready',
    taken: { value: capture, settling: { verdict: settling.verdict, end: settling.end } },
  };
}

/** A median is believed where it lies at the end that is foreseen: a mix of before and after does not. */
function isAtEnd({ rawCounts }: PresentValue, { end }: Settling, spanCounts: number): boolean {
  if (!end) return true;
  const slack = STOPPED_FRAC * spanCounts;
  return rawCounts >= end.low - slack && rawCounts <= end.high + slack;
}

/** Takes what is ready; the step goes on once every channel has it. @returns the very same state where nothing has changed */
export function lookHandsFree(state: HandsFree, all: readonly Seen[]): HandsFree {
  const { step } = state;
  if (step === 'done') return state;
  const ready = all.flatMap((seen) => {
    if (!state.channelIds.includes(seen.channelId)) return [];
    const answer = judgeSeen(state, seen);
    return answer.kind === 'ready' ? [{ channelId: seen.channelId, taken: answer.taken }] : [];
  });
  const taken = ready.reduce(
    (held, one) => ({ ...held, [one.channelId]: { ...held[one.channelId], [step]: one.taken } }),
    state.taken,
  );
  return goOn(ready.length > 0 ? { ...state, taken } : state);
}

/** To the next step, once every channel that takes part has the open one. */
function goOn(state: HandsFree): HandsFree {
  const { step, channelIds, taken } = state;
  if (step === 'done' || channelIds.length === 0 || !channelIds.every((id) => taken[id]?.[step]))
    return state;
  return { ...state, step: step === 'air' ? 'water' : 'done', isConfirmed: false };
}

export const confirmHandsFree = (state: HandsFree): HandsFree => ({ ...state, isConfirmed: true });

/** A probe that runs the other way is taken as it is. */
export const allowHandsFree = (state: HandsFree, channelId: string): HandsFree => ({
  ...state,
  allowed: [...new Set([...state.allowed, channelId])],
});

/** A probe that does not answer is left out, so that the others can go on. The last one stays. */
export const leaveOutHandsFree = (state: HandsFree, channelId: string): HandsFree => {
  const channelIds = state.channelIds.filter((id) => id !== channelId);
  return channelIds.length === 0 ? state : goOn({ ...state, channelIds });
};

/** The open step again from its beginning, or the one before where nothing of it was taken. */
export function againHandsFree(state: HandsFree): HandsFree {
  const step: RunStep =
    state.step === 'done' || (state.step === 'water' && hasAny(state, 'water')) ? 'water' : 'air';
  const drop = RUN_STEPS.slice(RUN_STEPS.indexOf(step));
  return {
    ...state,
    step,
    isConfirmed: false,
    taken: Object.fromEntries(
      Object.entries(state.taken).map(([id, of]) => [
        id,
        Object.fromEntries(Object.entries(of).filter(([key]) => !drop.includes(key as RunStep))),
      ]),
    ),
  };
}

const hasAny = ({ channelIds, taken }: HandsFree, step: RunStep): boolean =>
  channelIds.some((id) => taken[id]?.[step]);
