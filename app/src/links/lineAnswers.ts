import type { EngineState, LineState } from '@plain-trowel/core/control/engine/types';
import type { BoardEngine } from '@plain-trowel/core/garden/engineOf';
import type { LineAnswer } from './lineSource.ts';

/** Earliest next start that the engine's own times allow; null while something else holds the line, or nothing does. */
function mayStartS(line: LineState, engine: BoardEngine, at: number): number | null {
  const config = engine.config.lines[at];
  if (!config) return null;
  const { program } = config;
  switch (line.reason) {
    case 'min-interval':
      return line.lastStartS + config.guards.minIntervalS;
    case 'soaking':
      return program.kind === 'pulse-soak' && line.lastStopS !== null ? line.lastStopS + program.soakS : null;
    case 'pulses-used':
      return program.kind === 'pulse-soak' && line.lastStopS !== null ? line.lastStopS + program.restS : null;
    case 'dose-interval':
      return program.kind === 'single-dose' ? line.lastStartS + program.intervalS : null;
    case 'waiting-for-rise':
      return line.watch?.untilS ?? null;
    default:
      return null;
  }
}

/** What a board's engine has decided, by line. @param msOf turns the engine's seconds into ms since 1970 */
export const lineAnswers = (
  engine: BoardEngine,
  state: EngineState,
  msOf: (seconds: number) => number,
): Record<string, LineAnswer> =>
  Object.fromEntries(
    state.lines.map((line, at): [string, LineAnswer] => {
      const may = mayStartS(line, engine, at);
      return [
        engine.lineIds[at] ?? '',
        {
          isOn: line.run !== null,
          reason: line.reason,
          runningSinceMs: line.run ? msOf(line.run.sinceS) : null,
          plannedS: line.run?.plannedS ?? null,
          mayStartAtMs: may === null ? null : msOf(may),
          givenMl: line.ration.sumMl,
          pulses: line.pulses,
          isLocked: line.locked,
          noRise: line.noRise,
        },
      ];
    }),
  );
