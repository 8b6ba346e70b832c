import { byId } from '../../quantity/byId.ts';
import type { Reading } from '../../records/series.ts';
import { isReading } from '../../records/series.ts';
import { initialLineParser, parseLine, type LineParserState } from '../../signal/line.ts';
import type { Garden } from '../document/schema.ts';

export type BoardLine = { readonly boardId: string; readonly text: string; readonly atMs: number };

/**
 * What the lines of a log say of the garden's channels, by channel: one reading per channel and log interval, the first at once, as a live source would be kept.
 * Values that belong to no channel are left out.
 * @param lines in the order of the log
 * @param flags of every reading
 */
export function readingsOfLog(
  { boards, channels, logEveryS }: Pick<Garden, 'boards' | 'channels' | 'logEveryS'>,
  lines: readonly BoardLine[],
  flags: number,
): Map<string, Reading[]> {
  const keyOf = (boardId: string, name: string) => `${boardId}\n${name}`;
  const known = new Map(
    channels
      .filter((one) => one.streamName !== '')
      .map((one) => [keyOf(one.boardId, one.streamName), one.id]),
  );
  const parsers = new Map<string, LineParserState>();
  const readings = new Map<string, Reading[]>();
  for (const { boardId, text, atMs } of lines) {
    const comma = byId(boards, boardId)?.reads.comma ?? null;
    const held = parsers.get(boardId) ?? { ...initialLineParser, comma };
    const { state, result } = parseLine(held, text);
    parsers.set(boardId, state);
    if (result.kind !== 'values') continue;
    for (const { name, value } of result.values) {
      const channelId = known.get(keyOf(boardId, name));
      const reading = { timeMs: Math.round(atMs), raw: value, flags };
      if (channelId === undefined || !isReading(reading)) continue;
      const list = readings.get(channelId);
      const since = reading.timeMs - (list?.at(-1)?.timeMs ?? -Infinity);
      if (since >= 0 && since < logEveryS * 1000) continue;
      if (list) list.push(reading);
      else readings.set(channelId, [reading]);
    }
  }
  return readings;
}
