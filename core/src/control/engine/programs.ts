/** What each kind of program wants of its idle line: a run of so many seconds, or rest, and why. Guards and conditions are not asked here. */
import { doseS } from './dose.ts';
import type { Reason } from './reasons.ts';
import type { EngineInput, LineConfig, LineState, Program, SensorState, Slot } from './types.ts';

/** A reason alone means rest. `slot` is the time of a timer that would be served. */
export type Wish = Reason | { readonly runS: number; readonly reason: Reason; readonly slot: number | null };

/** What the program looks at. */
export type Sight = {
  readonly input: EngineInput;
  readonly sensor: SensorState | null;
  /** Why the reading cannot be acted on; null when it can. */
  readonly doubt: Reason | null;
};

/** A time of a timer counts for an hour: what could not begin within it is left out, not made up for. */
export const SLOT_WINDOW_S = 3600;
/** A time that was served is not due again before this, s: the hour that a clock is set back does not water twice. */
const SERVED_S = 20 * 3600;
export const DAY_S = 86_400;
/** A faulty probe is given this long to come back before the fallback waters, s; then at most once a day. */
export const FAULTY_S = 3600;

export const isMoistureLed = (kind: Program['kind']): boolean =>
  kind === 'pulse-soak' || kind === 'until-wet' || kind === 'single-dose' || kind === 'veto';

export function wishOf(line: LineState, config: LineConfig, sight: Sight): Wish {
  const { program } = config;
  if (isMoistureLed(program.kind) && sight.doubt) return sight.doubt;
  const tenths = sight.sensor?.tenths ?? 0;
  switch (program.kind) {
    case 'alert-only':
      return 'alert-only';
    case 'timer':
      return timerWish(line, config, program, sight.input, 'timer');
    case 'veto': {
      const wish = timerWish(line, config, program, sight.input, 'dry-enough');
      return typeof wish === 'object' && tenths >= program.wetTenths ? 'too-wet' : wish;
    }
    case 'until-wet':
      return tenths < program.startTenths ? below(doseS(config, program.capMl)) : 'not-below-start';
    case 'single-dose':
      if (tenths >= program.startTenths) return 'not-below-start';
      return sight.input.nowS - line.lastStartS < program.intervalS
        ? 'dose-interval'
        : below(doseS(config, program.doseMl));
    case 'pulse-soak':
      return pulseWish(line, config, program, tenths, sight.input.nowS);
    case 'follower':
      return line.owes ? { runS: line.owes.runS, reason: 'follows', slot: null } : 'leader-rests';
  }
}

const below = (runS: number): Wish => ({ runS, reason: 'below-start', slot: null });

function pulseWish(
  line: LineState,
  config: LineConfig,
  program: Extract<Program, { kind: 'pulse-soak' }>,
  tenths: number,
  nowS: number,
): Wish {
  const pulse = () => below(doseS(config, program.pulseMl));
  if (line.pulses === 0 || line.lastStopS === null)
    return tenths < program.startTenths ? pulse() : 'not-below-start';
  if (nowS - line.lastStopS < program.soakS) return 'soaking';
  if (tenths >= program.stopTenths) return 'not-below-start';
  return line.pulses < program.mostPulses ? pulse() : 'pulses-used';
}

/** Pulses of the episode that still goes on: it ends at the stop limit once the last pulse has soaked in, or after the rest. */
export function pulsesNow(line: LineState, program: Program, sight: Sight): number {
  if (program.kind !== 'pulse-soak' || line.pulses === 0 || line.run || line.lastStopS === null)
    return line.pulses;
  const sinceS = sight.input.nowS - line.lastStopS;
  if (sinceS >= program.restS) return 0;
  const isWet = sight.doubt === null && (sight.sensor?.tenths ?? 0) >= program.stopTenths;
  return isWet && sinceS >= program.soakS ? 0 : line.pulses;
}

function timerWish(
  line: LineState,
  config: LineConfig,
  { slots, doseMl }: { readonly slots: readonly Slot[]; readonly doseMl: number },
  { clock, nowS }: EngineInput,
  reason: Reason,
): Wish {
  if (!clock) return 'clock-unknown';
  for (let slot = 0; slot < slots.length; slot += 1) {
    const one = slots[slot];
    const served = line.served[slot] ?? null;
    if (!one || (served !== null && nowS - served < SERVED_S)) continue;
    const sinceS = clock.daySecond - one.daySecond;
    const passedS = sinceS < 0 ? sinceS + DAY_S : sinceS;
    // A time before boot may have been served before boot: better missed than watered twice.
    if (passedS >= SLOT_WINDOW_S || passedS > nowS) continue;
    const weekday = sinceS < 0 ? (clock.weekday + 6) % 7 : clock.weekday;
    if (((one.days >> weekday) & 1) === 1) return { runS: doseS(config, doseMl), reason, slot };
  }
  return 'not-due';
}

/** The next time at which a timer's time begins, s since boot; null without a clock or times. */
export function nextSlotS(
  slots: readonly Slot[],
  { clock, nowS }: Pick<EngineInput, 'clock' | 'nowS'>,
): number | null {
  if (!clock) return null;
  let next: number | null = null;
  for (const { daySecond } of slots) {
    const aheadS = daySecond - clock.daySecond;
    const atS = nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S);
    if (next === null || atS < next) next = atS;
  }
  return next;
}
