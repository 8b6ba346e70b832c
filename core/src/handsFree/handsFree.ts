/**
 * Air and water for one probe or many, hands-free: the run says what to do, believes a step only after a change of the right size and direction and then rest,
 * captures by itself, and goes on. What no number shows (wiped, in up to the line) is confirmed once. A pure reducer: readings come in, a state goes out.
 */
import { NOISES, restOf, unsoundOf, type RestAnswer, type SeenNow, type Taken } from './atRest.ts';

export const RUN_STEPS = ['air', 'water'] as const;
export type RunStep = (typeof RUN_STEPS)[number];

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
export type Seen = SeenNow & {
  readonly channelId: string;
  /** Which way its kind goes in water; null where that depends on the wiring. */
  readonly expects: 'falling' | 'rising' | null;
};

export type Answer =
  | { readonly kind: 'taken'; readonly counts: number }
  | RestAnswer
  | { readonly kind: 'wrong-way'; readonly expects: 'falling' | 'rising' }
  /** Everything is there but the person's word. */
  | { readonly kind: 'confirm' };

/** Water moves a probe by this share of its usual span at least, and by so many times its noise. */
export const WATER_FRAC = 0.3;

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
  const { now, spanCounts } = seen;
  const unsound = unsoundOf(seen);
  if (unsound || !now) return unsound ?? { kind: 'no-reading' };
  if (state.step === 'water') {
    const air = state.taken[seen.channelId]?.air?.value.rawCounts ?? now.rawCounts;
    const moved = now.rawCounts - air;
    const isMoved = Math.abs(moved) > WATER_FRAC * spanCounts && Math.abs(moved) > NOISES * now.noiseCounts;
    if (!isMoved) return { kind: 'wait-for-change', movedFrac: Math.abs(moved) / spanCounts };
    const goes = moved < 0 ? 'falling' : 'rising';
    if (seen.expects !== null && goes !== seen.expects && !state.allowed.includes(seen.channelId))
      return { kind: 'wrong-way', expects: seen.expects };
  }
  const rest = restOf(seen);
  return rest.kind === 'ready' && state.step === 'water' && !state.isConfirmed ? { kind: 'confirm' } : rest;
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
