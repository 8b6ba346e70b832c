import { bootEngine, stepEngine } from '@plain-trowel/core/control/engine/engine';
import type { EngineState } from '@plain-trowel/core/control/engine/types';
import { fullScaleOf } from '@plain-trowel/core/garden/channels';
import { clockIn, engineInput } from '@plain-trowel/core/garden/engineInput';
import { engineOf, type BoardEngine } from '@plain-trowel/core/garden/engineOf';
import type { Garden } from '@plain-trowel/core/garden/schema';
import { lineAnswers } from './lineAnswers.ts';
import type { LineAnswer } from './lineSource.ts';

/**
 * What the rules would answer to readings of a real board or of a log. The same engine as on a board, running in the page; it switches
 * nothing, because the board's own program does that.
 */
export class PageEngines {
  private readonly states = new Map<string, EngineState>();
  private engines: { garden: Garden; all: readonly BoardEngine[]; clock: ReturnType<typeof clockIn> } | null =
    null;
  private bootMs: number | null = null;

  /**
   * One step of every board that has a water line.
   * @param readings newest raw value and its time by channel id
   */
  step(
    garden: Garden,
    readings: ReadonlyMap<string, { raw: number; timeMs: number }>,
    nowMs: number,
  ): Record<string, LineAnswer> {
    this.bootMs ??= nowMs;
    const bootMs = this.bootMs;
    const onClock = (timeMs: number) => Math.floor((timeMs - bootMs) / 1000);
    const nowS = onClock(nowMs);
    const { all, clock } = this.enginesOf(garden, nowS);
    const answers: Record<string, LineAnswer> = {};
    for (const engine of all) {
      const input = engineInput(
        engine,
        nowS,
        (channelId) => {
          const held = readings.get(channelId);
          return held ? { raw: held.raw, atS: onClock(held.timeMs) } : null;
        },
        clock(nowMs),
        [],
        (channel) => fullScaleOf(garden, channel),
      );
      const before = this.states.get(engine.boardId) ?? bootEngine(engine.config);
      const { state } = stepEngine(before, input, engine.config);
      this.states.set(engine.boardId, state);
      Object.assign(
        answers,
        lineAnswers(engine, state, (seconds) => bootMs + seconds * 1000),
      );
    }
    return answers;
  }

  /** Settings are made anew when the document has changed. A board whose lines or probes are others begins again, as after an upload. */
  private enginesOf(garden: Garden, nowS: number) {
    const held = this.engines;
    if (held && held.garden === garden) return held;
    const all = garden.boards
      .map((board) => engineOf(garden, board.id))
      .filter((one) => one.lineIds.length > 0);
    const namesOf = (engine: BoardEngine) =>
      [...engine.lineIds, ...engine.sensorChannelIds, ...engine.tankIds].join();
    for (const engine of all) {
      const old = this.engines?.all.find((one) => one.boardId === engine.boardId);
      if (old && namesOf(old) !== namesOf(engine))
        this.states.set(engine.boardId, bootEngine(engine.config, [], nowS));
    }
    this.engines = { all, clock: clockIn(garden.timeZone), garden };
    return this.engines;
  }
}
