/**
 * What a board goes by and another board reads: its readings come through the gateway, with each answer, and are gone by as those of a probe that is read now and then. When they stop, the
 * line stands as for any probe that has fallen silent.
 */
import type { BoardEngine } from '../control/host/boardEngine.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import { isInput, readInputs, type ReadInput } from './inputs.ts';
import { networkOf } from './network.ts';
import { decimalsOf, NO_PIN, type SketchInput } from './plan.ts';

/** How the board that a channel belongs to reads it; undefined where its program would not. */
export function readThere(garden: Garden, channel: Channel): SketchInput | undefined {
  const found = readInputs(garden, channel.boardId).read.find((one) => one.channel.id === channel.id);
  return found && isInput(found.input) ? found.input : undefined;
}

/** Channels of other boards that this one goes by; none where it does not report over the network, for then nobody can tell it. */
export function farInputs(garden: Garden, boardId: string, engine: BoardEngine): readonly ReadInput[] {
  const board = byId(garden.boards, boardId);
  if (!board || networkOf(garden, board) === null) return [];
  return farChannels(garden, boardId, engine).map((channel): ReadInput => {
    const there = readThere(garden, channel);
    const name = byId(garden.boards, channel.boardId)?.name ?? channel.boardId;
    const what = there?.label ?? (channel.label || channel.quantity);
    if (!there) return { channel, input: { kind: 'kind-not-written', what, sheet: 'bench/readout' } };
    const far = { board: name, decimals: decimalsOf(there) };
    return {
      channel,
      input: { channelId: channel.id, name: channel.id, label: what, reads: 'far', pin: NO_PIN, far },
    };
  });
}

/** Of sensors, reservoirs and conditions, each once. */
function farChannels(garden: Garden, boardId: string, engine: BoardEngine): readonly Channel[] {
  const ids = new Set([
    ...engine.sensors.flatMap(({ members }) => members.map(({ channelId }) => channelId)),
    ...engine.tankChannelIds,
    ...[...engine.around, ...engine.contactsAround].flatMap(({ airId, lightId, rainId, soilId, skipId }) => [
      airId,
      lightId,
      rainId,
      soilId,
      skipId,
    ]),
  ]);
  return garden.channels.filter((channel) => ids.has(channel.id) && channel.boardId !== boardId);
}

/** What the gateway must tell a board with each answer: channels by the boards that read them. */
export const wantedFar = (inputs: readonly SketchInput[]): readonly string[] =>
  inputs.flatMap(({ reads, channelId }) => (reads === 'far' ? [channelId] : []));
