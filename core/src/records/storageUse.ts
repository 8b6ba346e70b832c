/** What a garden's readings take, by year: for whoever wonders what to keep. */
import { bytesOf, packDay, type PackedDay } from './packDay.ts';
import { isSoundBlock } from './series.ts';

export type YearUse = { readonly year: number; readonly readings: number; readonly bytes: number };

/** Sums stored days, packed or not, by their UTC year; what is neither is left out. */
export class StorageUse {
  private readonly years = new Map<number, { readings: number; bytes: number }>();

  add(stored: unknown): void {
    const day = isSoundBlock(stored) ? packDay(stored) : isPacked(stored) ? stored : null;
    if (!day) return;
    const year = new Date(day.dayMs).getUTCFullYear();
    const { readings, bytes } = this.years.get(year) ?? { readings: 0, bytes: 0 };
    this.years.set(year, { readings: readings + day.rows, bytes: bytes + bytesOf(day) });
  }

  /** Newest year first. */
  byYear(): YearUse[] {
    return [...this.years].toSorted(([one], [other]) => other - one).map(([year, use]) => ({ year, ...use }));
  }
}

const isPacked = (stored: unknown): stored is PackedDay =>
  typeof stored === 'object' && stored !== null && (stored as { packed?: unknown }).packed === 1;
