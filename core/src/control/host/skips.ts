/**
 * Lines that water nothing by themselves until a moment, because a person said so: for rain that is to come, for frost, for a holiday. The board itself keeps the time, so
 * that it holds without anybody listening; to the engine such a line is switched off. Orders by hand go on, and so do all guards.
 */
import type { EngineConfig } from '../engine/settings.ts';

/** By the id of a line until when it is skipped, ms since 1970. */
export type Skips = Readonly<Record<string, number>>;

/** No skip is longer, s: 32 days. */
export const MOST_SKIP_S = 2_764_800;

/** What is skipped after these orders, of lines that are known; what is over is gone. @param asked line and how long from now on, s; 0 ends it */
export function skipsAfter(
  before: Skips,
  asked: readonly { readonly lineId: string; readonly forS: number }[],
  nowMs: number,
): Skips {
  const all = new Map(Object.entries(before));
  for (const { lineId, forS } of asked) all.set(lineId, nowMs + Math.min(forS, MOST_SKIP_S) * 1000);
  return Object.fromEntries([...all].filter(([, untilMs]) => untilMs > nowMs));
}

/** The settings with skipped lines switched off; the very same where nothing is skipped. */
export const skipping = (config: EngineConfig, lineIds: readonly string[], skips: Skips): EngineConfig =>
  lineIds.some((id) => id in skips)
    ? {
        ...config,
        lines: config.lines.map((line, at) =>
          (lineIds[at] ?? '') in skips ? { ...line, enabled: false } : line,
        ),
      }
    : config;

/** How long a person may skip from now on; "morning": until six on the wall. */
export const SKIP_CHOICES = ['morning', 'day', 'three days', 'week', 'two weeks', 'longest'] as const;
export type SkipChoice = (typeof SKIP_CHOICES)[number];

const DAY_S = 86_400;
const MORNING_S = 6 * 3600;
const LENGTHS_S: Readonly<Record<Exclude<SkipChoice, 'morning'>, number>> = {
  day: DAY_S,
  'three days': 3 * DAY_S,
  week: 7 * DAY_S,
  'two weeks': 14 * DAY_S,
  longest: MOST_SKIP_S,
};

/** @param daySecond of the garden's local time @returns s, at least one */
export const skipLengthS = (choice: SkipChoice, daySecond: number): number =>
  choice === 'morning' ? (MORNING_S - daySecond + DAY_S) % DAY_S || DAY_S : LENGTHS_S[choice];
