/** One stand-in board: the engine that its sketch would carry, what it keeps through a reboot, and what it tells. */
import { bootEngine, rememberedOf, stepEngine } from '@plain-trowel/core/control/engine/engine';
import type { EngineEvent, EngineState, Order, Remembered } from '@plain-trowel/core/control/engine/types';
import { engineInput } from '@plain-trowel/core/garden/engineInput';
import type { BoardEngine } from '@plain-trowel/core/garden/engineOf';
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import type { Setup } from './setup.ts';

export type LineOrder = { readonly lineId: string } & (
  { readonly kind: 'water'; readonly volumeMl: number } | { readonly kind: 'stop' | 'unlock' }
);

export type BoardState = {
  readonly engine: EngineState;
  /** Lines, channels and tanks that the state was made for, in their order: with others, the board is as good as flashed anew. */
  readonly made: string;
  readonly lineIds: readonly string[];
  /** Since when a running line's output is on, s since boot, by line. */
  readonly since: Readonly<Record<string, number>>;
  /** Kept through a reboot, by line. */
  readonly memory: Readonly<Record<string, Remembered[number]>>;
  /** When the engine wants to be called, ms since 1970. */
  readonly callMs: number;
};

export type WorldEvent = EngineEvent & {
  readonly lineId: string;
  readonly lineName: string;
  readonly plotId: string;
  readonly atMs: number;
  readonly percentKind: PercentKind | null;
};

const madeFor = ({ lineIds, sensorChannelIds, tankIds, config }: BoardEngine): string =>
  [...lineIds, '|', ...sensorChannelIds, '|', ...tankIds, '|', ...config.lines.map((one) => one.sensor)].join(
    ' ',
  );

/** A board just switched on, with what it kept from before. */
export function bootBoard(engine: BoardEngine, before: BoardState | null, nowS: number): BoardState {
  const memory = before?.memory ?? {};
  const remembered = engine.lineIds.map((id) => memory[id] ?? { givenMl: 0, locked: false, noRise: 0 });
  return {
    engine: bootEngine(engine.config, remembered, nowS),
    made: madeFor(engine),
    lineIds: engine.lineIds,
    since: {},
    memory,
    callMs: Infinity,
  };
}

export function decideOn(
  engine: BoardEngine,
  held: BoardState | null,
  setup: Setup,
  now: {
    readonly timeMs: number;
    readonly bootMs: number;
    readonly values: ReadonlyMap<string, number>;
    readonly orders: readonly LineOrder[];
  },
): { readonly board: BoardState; readonly events: readonly WorldEvent[] } {
  const nowS = Math.floor((now.timeMs - now.bootMs) / 1000);
  const isSame = held?.made === madeFor(engine);
  const board = held && isSame ? held : bootBoard(engine, held, nowS);
  const cut = held && !isSame ? cutShort(held, engine, nowS) : [];
  const input = engineInput(
    engine,
    nowS,
    (channelId) => {
      const raw = now.values.get(channelId);
      return raw === undefined ? null : { raw, atS: nowS };
    },
    setup.clock(now.timeMs),
    ordersOn(engine, now.orders),
    (channel) => setup.fullScaleOf(channel.boardId),
  );
  const step = stepEngine(board.engine, input, engine.config);
  const events = [...cut, ...step.events].flatMap((event): WorldEvent[] => {
    const lineId = engine.lineIds[event.line];
    const line = setup.lines.find((one) => one.lineId === lineId);
    return line
      ? [
          {
            ...event,
            lineId: line.lineId,
            lineName: line.name,
            plotId: line.plotId,
            atMs: now.timeMs,
            percentKind: line.percentKind,
          },
        ]
      : [];
  });
  const writes = step.events.some((event) => event.kind !== 'held' && event.kind !== 'refused');
  return {
    board: {
      ...board,
      engine: step.state,
      since: sinceOf(engine, step.state),
      memory: writes ? { ...board.memory, ...memoryOf(engine, step.state) } : board.memory,
      callMs: step.callAgainAtS === null ? Infinity : now.bootMs + step.callAgainAtS * 1000,
    },
    events,
  };
}

const ordersOn = (engine: BoardEngine, orders: readonly LineOrder[]): Order[] =>
  orders.flatMap(({ lineId, ...order }): Order[] => {
    const line = engine.lineIds.indexOf(lineId);
    return line < 0 ? [] : [{ ...order, line }];
  });

const sinceOf = (engine: BoardEngine, state: EngineState): Record<string, number> =>
  Object.fromEntries(
    state.lines.flatMap((line, at) => (line.run ? [[engine.lineIds[at] ?? '', line.run.sinceS]] : [])),
  );

const memoryOf = (engine: BoardEngine, state: EngineState): Record<string, Remembered[number]> =>
  Object.fromEntries(rememberedOf(state, engine.config).map((one, at) => [engine.lineIds[at] ?? '', one]));

/** What ran when the settings were turned round under it is off, as with any upload. */
function cutShort(held: BoardState, engine: BoardEngine, nowS: number): EngineEvent[] {
  return held.engine.lines.flatMap((line, at): EngineEvent[] => {
    const place = engine.lineIds.indexOf(held.lineIds[at] ?? '');
    if (!line.run || place < 0) return [];
    const ranS = Math.max(0, nowS - line.run.sinceS);
    const flow = engine.config.lines[place]?.flowMlPerMin ?? 0;
    return [
      {
        kind: 'stopped',
        line: place,
        atS: nowS,
        reason: engine.config.lines[place]?.sensor === null ? 'not-calibrated' : 'switched-off',
        ranS,
        volumeMl: Math.trunc((ranS * flow) / 60),
      },
    ];
  });
}
