import type { Channel, Garden } from '../garden/document/schema.ts';
import type { NamedValue } from '../signal/line.ts';
import { StreamBuffer } from '../signal/streamBuffer.ts';

export type StreamInfo = {
  readonly boardId: string;
  readonly name: string;
  readonly last: number;
  /** As the board prints it; null where it prints none. */
  readonly unit: string | null;
};

/** Names that belong to no channel are kept up to this many; a board has a few, a damaged log has thousands. */
export const MOST_NAMES = 200;
/** Of a name that belongs to no channel so many values are kept: enough to see what it is once somebody says so. */
const UNNAMED_VALUES = 240;
/** So many more are told apart while they are counted. */
export const MOST_COUNTED = 10_000;

const keyOf = (boardId: string, name: string) => `${boardId}\n${name}`;

/** What the boards print, by board and name: a few values of each, and of those that belong to a channel the last minutes. */
export class Streams {
  private readonly infos = new Map<string, StreamInfo>();
  private readonly buffers = new Map<string, StreamBuffer>();
  private readonly others = new Set<string>();
  private channels = new Map<string, Channel>();

  constructor(garden: Garden) {
    this.setGarden(garden);
  }

  setGarden(garden: Garden): void {
    this.channels = new Map(
      garden.channels
        .filter((one) => one.streamName !== '')
        .map((one) => [keyOf(one.boardId, one.streamName), one]),
    );
  }

  /** The channel that a board prints under a name; null for a name that nobody has claimed. */
  channelOf(boardId: string, name: string): Channel | null {
    return this.channels.get(keyOf(boardId, name)) ?? null;
  }

  /** Takes a value; gives the channel that it belongs to, or null. @param bundleMs between two deliveries of its board */
  take(boardId: string, atMs: number, { name, value, unit }: NamedValue, bundleMs = 0): Channel | null {
    const key = keyOf(boardId, name);
    const channel = this.channelOf(boardId, name);
    if (!channel && !this.infos.has(key) && this.infos.size >= MOST_NAMES) {
      if (this.others.size < MOST_COUNTED) this.others.add(key);
      return null;
    }
    this.infos.set(key, { boardId, name, last: value, unit: unit ?? null });
    const buffer = this.bufferAt(key, channel !== null);
    buffer.bundleMs = bundleMs;
    buffer.push(atMs, value);
    return channel;
  }

  /** The last minutes of a channel; null while nothing came. */
  bufferOf(channel: Channel): StreamBuffer | null {
    return this.buffers.get(keyOf(channel.boardId, channel.streamName)) ?? null;
  }

  /** What came under a name, whether or not it belongs to a channel; null for one that was never heard. */
  bufferUnder(boardId: string, name: string): StreamBuffer | null {
    return this.buffers.get(keyOf(boardId, name)) ?? null;
  }

  all(): StreamInfo[] {
    return [...this.infos.values()];
  }

  /** Names beyond the kept ones. */
  get more(): number {
    return this.others.size;
  }

  clear(): void {
    this.infos.clear();
    this.buffers.clear();
    this.others.clear();
  }

  /** The buffer of a name: a short one until it belongs to a channel, then a long one that begins with what the short one held. */
  private bufferAt(key: string, isChannel: boolean): StreamBuffer {
    const held = this.buffers.get(key);
    if (held && (!isChannel || held.capacity > UNNAMED_VALUES)) return held;
    const made = isChannel ? new StreamBuffer() : new StreamBuffer(UNNAMED_VALUES);
    const before = held?.since(-Infinity);
    before?.timesMs.forEach((timeMs, at) => made.push(timeMs, before.values[at] ?? 0));
    this.buffers.set(key, made);
    return made;
  }
}
