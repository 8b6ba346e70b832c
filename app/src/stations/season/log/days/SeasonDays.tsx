import { useState, type KeyboardEvent } from 'react';
import { useQuery } from '@tanstack/react-query';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { zoneClock } from '@plain-trowel/core/records/zoneClock';
import { daysStretch, type Stretch } from '@plain-trowel/core/records/stretch';
import { useGarden } from '../../../../data/gardenContext.ts';
import { waterDaysQuery } from '../../../../data/queries.ts';
import { Button } from '../../../../ui/Button.tsx';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';
import { DayWords } from './DayWords.tsx';
import { PlotDays } from './PlotDays.tsx';
import { useSeason } from './useSeason.ts';

/** Days that are no days: nothing is drawn. */
const NO_TIME: Stretch = { fromMs: 0, toMs: 1 };
/** A day is so wide at least, px; half a year is the most. */
const LEAST_PX = 4;
const MOST_DAYS = 182;
/** Of the names at the left. */
const LABEL_PX = 118;

/** A season looked back on: a row for each plot, a day beside the other, between what it stood and when it was watered. Opened by a press, for it reads half a year. */
export function SeasonDays({ nowMs, onShow }: { nowMs: number; onShow: (stretch: Stretch) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-4" open={open} onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="press py-1 font-semibold">The season, day by day, all plots</summary>
      {open && <Days nowMs={nowMs} onShow={onShow} />}
    </details>
  );
}

function Days({ nowMs, onShow }: { nowMs: number; onShow: (stretch: Stretch) => void }) {
  const { garden } = useGarden();
  const clock = zoneClock(garden.timeZone);
  const today = clock.dayAt(nowMs);
  const [lastDay, setLastDay] = useState<number | null>(null);
  const [pointed, setPointed] = useState<number | null>(null);
  const [frame, width] = useElementWidth<HTMLDivElement>(700);
  const count = Math.max(14, Math.min(MOST_DAYS, Math.floor((width - LABEL_PX) / LEAST_PX)));
  const toDay = lastDay ?? today;
  const fromDay = toDay - (count - 1) * DAY_MS;
  /** Days of the zone's clocks as a stretch of time. */
  const stretchOf = (first: number, last: number) =>
    daysStretch(isoOf(first).slice(0, 10), isoOf(last).slice(0, 10), garden.timeZone) ?? NO_TIME;
  const { fromMs, toMs: endMs } = stretchOf(fromDay, toDay);
  const toMs = endMs - 1;
  const water = useQuery(waterDaysQuery(garden.id, fromMs, toMs, garden.timeZone)).data ?? null;
  const { seasons, isFailed } = useSeason({ fromMs, toMs }, nowMs);
  const isDamaged = [...seasons.values()].some((read) => (read?.unreadable.size ?? 0) > 0);
  const days = { fromDay, count, dayPx: (width - LABEL_PX) / count, labelPx: LABEL_PX };
  const show = (day: number) => onShow(stretchOf(day, day));
  const point = (day: number) => setPointed(Math.min(toDay, Math.max(fromDay, day)));
  const byKey = ({ key }: KeyboardEvent) => {
    if (key === 'ArrowLeft') point((pointed ?? toDay + DAY_MS) - DAY_MS);
    if (key === 'ArrowRight') point((pointed ?? toDay) + DAY_MS);
    if (key === 'Escape') setPointed(null);
    if (key === 'Enter' && pointed !== null) show(pointed);
  };
  if (isFailed)
    return (
      <p role="alert" className="my-2 border-l-[3px] border-handle pl-3 text-[14.5px]">
        The days could not be read. Close this and open it again.
      </p>
    );
  const step = (share: number) => setLastDay(Math.min(today, toDay + Math.round(count * share) * DAY_MS));
  return (
    <section aria-label="The season, day by day" className="mt-2">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <Button onClick={() => step(-0.5)}>Earlier days</Button>
        <Button disabled={toDay >= today} onClick={() => step(0.5)}>
          Later days
        </Button>
        <span className="text-[13.5px] text-soft">
          A stroke goes from the lowest to the highest reading of a day, the dot is its mean over time; drops
          below it: watered{isDamaged ? '; a question mark: damaged readings' : ''}.
        </span>
      </div>
      <div
        ref={frame}
        role="group"
        tabIndex={0}
        aria-label="Days: left and right point at one, Enter shows it in the chart above"
        className="select-none"
        onKeyDown={byKey}
        onPointerMove={({ clientX, currentTarget }) => {
          const x = clientX - currentTarget.getBoundingClientRect().left - LABEL_PX;
          if (x >= 0) point(fromDay + Math.floor(x / days.dayPx) * DAY_MS);
        }}
        onPointerLeave={() => setPointed(null)}
        onClick={() => pointed !== null && show(pointed)}
      >
        {garden.plots.map(({ id }) => (
          <PlotDays key={id} plotId={id} days={days} read={seasons.get(id)} water={water} pointed={pointed} />
        ))}
      </div>
      <DayWords day={pointed} seasons={seasons} water={water} />
    </section>
  );
}
