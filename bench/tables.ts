/** Tables that other programs wrote: how many made-up layouts are read right at once, and how long a million readings take. */
import { performance } from 'node:perf_hooks';
import { judgeLayout } from '../core/src/tables/layoutsForTests.ts';
import { guessTable } from '../core/src/tables/guess.ts';
import { readTable } from '../core/src/tables/readTable.ts';
import type { NamedChannel } from '../core/src/tables/columnNames.ts';
import { bytesOf, packDay } from '../core/src/records/packDay.ts';

const LAYOUTS = 1000;
const ROWS = 1_000_000;
/** The tests have the seeds before it. */
const FIRST_SEED = 10_001;

export function benchTables(): void {
  const counts = { right: 0, asked: 0, wrong: 0 };
  for (let at = 0; at < LAYOUTS; at += 1) counts[judgeLayout(FIRST_SEED + at).verdict] += 1;
  console.log(
    `\nMade-up layouts, ${LAYOUTS}: ${counts.right} right at once (wanted: 950), ${counts.asked} asked or told, ${counts.wrong} wrong in silence (wanted: 0)`,
  );
  const channel: NamedChannel = {
    id: 'm1',
    quantity: 'moisture',
    unit: 'raw counts',
    meant: null,
    plot: 'Herb bed',
    probe: 'M1',
    board: 'Shed board',
    names: ['M1'],
    decides: true,
  };
  const rows = ['time;M1'];
  for (let at = 0; at < ROWS; at += 1)
    rows.push(
      `${new Date(Date.UTC(2024, 0, 1) + at * 60_000).toISOString().slice(0, 19)}Z;${1500 + (at % 900)}`,
    );
  const text = `${rows.join('\n')}\n`;
  const began = performance.now();
  const guess = guessTable(text, { channels: [channel], timeZone: 'Europe/Berlin', nowMs: Date.now() });
  if (!guess.ok) throw new Error(guess.issue);
  const { days, readings } = readTable(text, guess.value.layout, [channel]);
  console.log(`${readings} rows guessed and read in ${((performance.now() - began) / 1000).toFixed(2)} s`);
  const bytes = days.reduce((sum, day) => sum + bytesOf(packDay(day)), 0);
  console.log(`in storage ${(bytes / readings).toFixed(2)} bytes a reading (wanted: 6)`);
}
