/** `events.ndjson`: what happened in a garden, one event a line, oldest first. */
import { textLines } from '../quantity/textLines.ts';
import { readEvent, type GardenEvent } from './event.ts';

export const eventLine = (event: GardenEvent): string => `${JSON.stringify(event)}\n`;

/** A file with so many damaged lines is no longer looked into; each failure costs time, and nothing in it can be trusted. */
const MOST_DAMAGED = 500;

/** Events of the first versions have no id: they get one from what they say, the same one each time the file is read. */
export const OLD_ID = 'old ';

/** Reads the events of a file; lines that are none are left out and counted. Cannot throw. */
export function readEventsFile(text: string): { readonly events: GardenEvent[]; readonly skipped: number } {
  const events: GardenEvent[] = [];
  const oldIds = new Map<string, number>();
  let skipped = 0;
  for (const line of textLines(text)) {
    if (line === '') continue;
    const event = line.startsWith('{') && skipped < MOST_DAMAGED ? readLine(line, oldIds) : null;
    if (event) events.push(event);
    else if (line.trim() !== '') skipped += 1;
  }
  return { events, skipped };
}

function readLine(line: string, oldIds: Map<string, number>): GardenEvent | null {
  // No event is longer; what is longer must not be parsed before it is refused.
  if (line.length > 10_000) return null;
  const hash = fingerprint(line);
  const times = oldIds.get(hash) ?? 0;
  const event = readEvent(parsed(line), `${OLD_ID}${hash} ${times}`);
  if (event?.id.startsWith(OLD_ID)) oldIds.set(hash, times + 1);
  return event;
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line) as unknown;
  } catch {
    return null;
  }
}

/** Two FNV-1a sums of 32 bits from different beginnings, as hexadecimal. */
function fingerprint(text: string): string {
  let one = 0x811c9dc5;
  let other = 0x01000193;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    one = Math.imul(one ^ code, 0x01000193);
    other = Math.imul(other ^ code, 0x01000193) ^ (other >>> 15);
  }
  return ((one >>> 0) * 2 ** 20 + ((other >>> 0) & 0xfffff)).toString(36);
}
