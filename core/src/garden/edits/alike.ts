/** Several plots at once: names, labels, names of the stream and inputs are numbered on. */
import { plotParts } from '../bind/plotParts.ts';
import type { Garden, Plot } from '../document/schema.ts';
import { addBarePlot, addPlot, type Parts } from './plots.ts';

/** A bare number has no name in front of it; several probes of one board need one. */
export const BARE_NUMBER = 'value';
const MOST_LETTERS = 60;

/**
 * The n-th of a series that begins with a text, n from 0: its last number goes on ("P34" → "P35", "input 09" → "input 10"); a text without one gets a 2, a 3.
 * @param join what stands between a text and the number it gets
 */
export function numberedOn(text: string, n: number, join = ''): string {
  if (n === 0) return text;
  const found = /^(.*?)(\d{1,9})(\D*)$/s.exec(text);
  if (!found) return `${text.slice(0, MOST_LETTERS - 4)}${join}${n + 1}`;
  const [, before = '', digits = '', after = ''] = found;
  return `${before}${String(Number(digits) + n).padStart(digits.length, '0')}${after}`.slice(0, MOST_LETTERS);
}

export type PlotRow = {
  readonly name: string;
  readonly plant: string;
  readonly kind: Plot['kind'];
  /** How many like it, itself among them, ≥ 1. */
  readonly count: number;
};

/**
 * Adds plots row by row. With parts each gets a probe of that kind, labelled, read and named on from the first; all of them hang on one board.
 * @returns the garden and the new plots' ids, in order
 */
export function addPlots(
  garden: Garden,
  rows: readonly PlotRow[],
  parts: Omit<Parts, 'plotName' | 'plant' | 'plotKind'> | null,
  random: () => number,
): { garden: Garden; plotIds: string[] } {
  const total = rows.reduce((sum, row) => sum + row.count, 0);
  const plotIds: string[] = [];
  let next = garden;
  let board = parts?.board;
  for (const row of rows)
    for (let n = 0; n < row.count; n += 1) {
      const name = numberedOn(row.name, n, ' ');
      if (!parts || !board) {
        const added = addBarePlot(next, { name, plant: row.plant, kind: row.kind }, random);
        next = added.garden;
        plotIds.push(added.plotId);
        continue;
      }
      const at = plotIds.length;
      const probeLabel = numberedOn(parts.probeLabel, at);
      const isBareNumber = total > 1 && parts.streamName === BARE_NUMBER;
      const added = addPlot(
        next,
        {
          ...parts,
          plotName: name,
          plant: row.plant,
          plotKind: row.kind,
          probeLabel,
          streamName: isBareNumber ? probeLabel : numberedOn(parts.streamName, at),
          pin: parts.pin === '' ? '' : numberedOn(parts.pin, at),
          board,
        },
        random,
      );
      next = added.garden;
      plotIds.push(added.plotId);
      board = { id: plotParts(next, added.plotId)?.board?.id ?? '' };
    }
  return { garden: next, plotIds };
}
