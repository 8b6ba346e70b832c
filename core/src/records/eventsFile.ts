/** `events.ndjson`: what happened in a garden, one event a line, oldest first. */
import { textLines } from '../quantity/textLines.ts';
import { eventSchema, type GardenEvent } from './event.ts';

export const eventLine = (event: GardenEvent): string => `${JSON.stringify(event)}\n`;

/** Reads the events of a file; lines that are none are left out and counted. Cannot throw. */
export function readEventsFile(text: string): { readonly events: GardenEvent[]; readonly skipped: number } {
  const events: GardenEvent[] = [];
  let skipped = 0;
  for (const line of textLines(text)) {
    if (line === '') continue;
    const read = line.startsWith('{') && skipped < MOST_DAMAGED ? eventSchema.safeParse(parsed(line)) : null;
    if (read?.success) events.push(read.data);
    else if (line.trim() !== '') skipped += 1;
  }
  return { events, skipped };
}

/** A file with so many damaged lines is no longer looked into; each failure costs time, and nothing in it can be trusted. */
const MOST_DAMAGED = 500;

function parsed(line: string): unknown {
  // No event is longer; what is longer must not be parsed before it is refused.
  if (line.length > 10_000) return null;
  try {
    return JSON.parse(line) as unknown;
  } catch {
    return null;
  }
}
