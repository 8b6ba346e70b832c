import { initialEngine, stepEngine, type EngineState } from '@plain-trowel/core/control/engine';
import { engineConfig, plotParts } from '@plain-trowel/core/garden/edit';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { PlotAnswer } from './lineSource.ts';

/**
 * What the rules would answer to readings of a real board or of a log. The same engine as on a board, running in the page; it switches
 * nothing, because the board's own program does that.
 */
export class PageEngines {
  private readonly states = new Map<string, EngineState>();
  private bootMs: number | null = null;

  /**
   * One step of every plot that can decide.
   * @param readings newest raw value and its time by channel id
   */
  step(
    garden: Garden,
    readings: ReadonlyMap<string, { raw: number; timeMs: number }>,
    nowMs: number,
  ): Record<string, PlotAnswer> {
    this.bootMs ??= nowMs;
    const bootMs = this.bootMs;
    const onClock = (timeMs: number) => Math.floor((timeMs - bootMs) / 1000);
    const answers: Record<string, PlotAnswer> = {};
    for (const plot of garden.plots) {
      const parts = plotParts(garden, plot.id);
      const config = parts && engineConfig(parts);
      if (!parts?.channel || !config) continue;
      const held = readings.get(parts.channel.id);
      // The engine is whole numbers only; a median or a voltage may fall between two.
      const reading = held ? { raw: Math.round(held.raw), atS: onClock(held.timeMs) } : null;
      const { state, outputs } = stepEngine(
        this.states.get(plot.id) ?? initialEngine,
        { nowS: onClock(nowMs), reading },
        config,
      );
      this.states.set(plot.id, state);
      answers[plot.id] = {
        ...outputs,
        reason: state.reason,
        runningSinceMs: state.runningSinceS === null ? null : bootMs + state.runningSinceS * 1000,
        mayStartAtMs:
          state.reason === 'min-interval' ? bootMs + (state.lastStartS + config.minIntervalS) * 1000 : null,
      };
    }
    return answers;
  }
}
