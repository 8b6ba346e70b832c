/** Water given in a stretch of time: summed event by event, so that any span can be read in pieces. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { GardenEvent } from './event.ts';

type Sum = { volumeMl: number; times: number };
const NOTHING: Readonly<Sum> = { volumeMl: 0, times: 0 };

/** Water that reached each plot on each local day, and what else was written down of it. */
export class WaterDays {
  private readonly ml = new Map<string, number>();

  constructor(private readonly dayAt: (ms: number) => number) {}

  add(event: GardenEvent): void {
    const isWater = event.kind === 'poured' || event.kind === 'pump-stopped';
    if (!isWater || event.plotId === null) return;
    const key = `${this.dayAt(event.atMs)} ${event.plotId}`;
    this.ml.set(key, (this.ml.get(key) ?? 0) + event.volumeMl);
  }

  /** ml; 0 where none was given. @param dayMs local midnight as if its clocks were those of UTC */
  of(plotId: string, dayMs: number): number {
    return this.ml.get(`${dayMs} ${plotId}`) ?? 0;
  }
}

/** Runs by line and, for those of the first versions that name none, by plot; pours by plot. */
export class WaterSums {
  private readonly runsOfLine = new Map<string, Sum>();
  private readonly runsOfPlot = new Map<string, Sum>();
  private readonly namelessRuns = new Map<string, Sum>();
  private readonly pours = new Map<string, Sum>();
  /** When the first event of any kind was, ms; infinite without one. */
  firstMs = Infinity;

  add(event: GardenEvent): void {
    this.firstMs = Math.min(this.firstMs, event.atMs);
    const { plotId } = event;
    if (event.kind === 'poured' && plotId !== null) count(this.pours, plotId, event.volumeMl);
    if (event.kind !== 'pump-stopped') return;
    if (plotId !== null) count(this.runsOfPlot, plotId, event.volumeMl);
    if (event.lineId !== null) count(this.runsOfLine, event.lineId, event.volumeMl);
    else if (plotId !== null) count(this.namelessRuns, plotId, event.volumeMl);
  }

  /** What one line gave, ml. @param onlyOfPlot its plot, where it is that plot's only line: then runs that name no line are its own */
  ofLineMl(lineId: string, onlyOfPlot: string | null): number {
    const nameless = onlyOfPlot === null ? NOTHING : (this.namelessRuns.get(onlyOfPlot) ?? NOTHING);
    return (this.runsOfLine.get(lineId) ?? NOTHING).volumeMl + nameless.volumeMl;
  }

  /** How often a plot was watered: runs and pours. */
  timesOf(plotId: string): number {
    return (this.runsOfPlot.get(plotId) ?? NOTHING).times + (this.pours.get(plotId) ?? NOTHING).times;
  }

  /** Water that reached a plot, ml: what its lines gave and what was poured. Null when there was none. */
  ofPlot(plotId: string): Worked | null {
    const runs = this.runsOfPlot.get(plotId) ?? NOTHING;
    const pours = this.pours.get(plotId) ?? NOTHING;
    if (runs.times + pours.times === 0) return null;
    const total = step(
      {
        name: 'water given',
        unit: 'ml',
        formula: '{pumped} + {poured}',
        inputs: {
          pumped: input('pumped', runs.volumeMl, 'ml'),
          runs: input('runs of the pump', runs.times, ''),
          poured: input('poured by hand', pours.volumeMl, 'ml'),
          pours: input('pours', pours.times, ''),
        },
      },
      ({ pumped, poured }) => pumped + poured,
    );
    return worked('Water given', [total], {
      source:
        'Sum over every run and pour in this stretch of time; a run’s volume is its time × the pump’s flow.',
      wouldChange: 'Another stretch of time, or a corrected flow of the pump for later runs.',
    });
  }
}

function count(sums: Map<string, Sum>, key: string, volumeMl: number): void {
  const { volumeMl: before, times } = sums.get(key) ?? NOTHING;
  sums.set(key, { volumeMl: before + volumeMl, times: times + 1 });
}
