import { clsx } from 'clsx';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../data/gardenContext.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../links/liveContext.ts';
import { labelLine, stateWord } from '@plain-trowel/core/telling/plotWords';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { bandFill } from '../ruler/patterns.tsx';
import { sheetPath } from './stations.ts';
import { usePlotScope } from './usePlotScope.ts';

const AddPlotDialog = lazy(() => import('../home/AddPlotDialog.tsx'));

/** A square with the pattern of the plot's word; a question mark in dashes where nothing is known, a cross where the probe is at fault. */
function StateMark({ view: { state }, onInk }: { view: PlotView; onInk: boolean }) {
  const isKnown = !isUnknown(state);
  return (
    <g>
      {isKnown && (
        <>
          <rect x="146" y="24" width="16" height="16" className="fill-label" />
          <rect
            x="146"
            y="24"
            width="16"
            height="16"
            fill={state === 'right' ? 'var(--leaf)' : bandFill(state)}
          />
        </>
      )}
      <rect
        x="146"
        y="24"
        width="16"
        height="16"
        fill="none"
        className={onInk ? 'stroke-paper' : 'stroke-ink'}
        strokeDasharray={isKnown || state === 'implausible' ? undefined : '3 3'}
      />
      {state === 'implausible' ? (
        <path
          d="M146 24l16 16M162 24l-16 16"
          strokeWidth="2"
          className={onInk ? 'stroke-handle-on-ink' : 'stroke-handle'}
        />
      ) : (
        !isKnown && (
          <text
            x="154"
            y="36.5"
            textAnchor="middle"
            className={clsx('text-[13px] font-semibold', onInk ? 'fill-paper' : 'fill-ink')}
          >
            ?
          </text>
        )
      )}
    </g>
  );
}

function PlotLabel({
  name,
  view,
  current,
  to,
  pumpOn,
}: {
  name: string;
  view: PlotView;
  current: boolean;
  to: string;
  pumpOn: boolean;
}) {
  const label = useRef<HTMLLIElement>(null);
  useEffect(() => {
    // On a phone the rack scrolls sideways; the label in use must be in sight.
    if (current) label.current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [current]);
  return (
    <li ref={label} className="relative h-16 w-[184px] shrink-0">
      <Link to={to} aria-current={current ? 'true' : undefined} className="block h-full">
        <svg width="184" height="64" aria-hidden className="absolute inset-0">
          <path
            d="M.5.5H150L183 32 150 63.5H.5Z"
            className={clsx('stroke-ink', current ? 'fill-ink' : 'fill-label')}
          />
          {pumpOn && (
            <path d="M12 57H140" strokeWidth="3" strokeDasharray="8 8" className="running stroke-rill" />
          )}
          <StateMark view={view} onInk={current} />
        </svg>
        <span
          className={clsx(
            'absolute top-2 left-3 w-[132px] leading-tight',
            current ? 'text-paper' : 'text-ink',
          )}
        >
          <b className="block truncate text-[15px] font-semibold">{name}</b>
          <span
            className={clsx('mt-0.5 block w-[124px] text-[12.5px] leading-tight', !current && 'text-soft')}
          >
            {labelLine(view)}
          </span>
        </span>
        <span className="sr-only">
          {pumpOn ? ', pump running' : `, ${stateWord(view.state, view.words)}`}
        </span>
      </Link>
    </li>
  );
}

/** One plant label per plot: its name, its state as a word and a pattern. It sets what the sheet is about. */
export function LabelRack() {
  const { garden } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const current = usePlotScope();
  const { pathname } = useLocation();
  const [adding, setAdding] = useState(false);
  // Today is about all of them: a label leads to its plot.
  const isOfAll = pathname === sheetPath(garden.id, 'season', 'today', null);
  return (
    <nav aria-label="Plots" className="no-print border-rule max-md:border-b md:border-r">
      <div className="relative py-4 pl-5 max-md:flex max-md:items-center max-md:gap-3 max-md:overflow-x-auto max-md:py-2.5 max-md:pr-4 md:sticky md:top-[72px] md:max-h-[calc(100dvh-72px)] md:overflow-y-auto">
        <h2 className="label mb-2.5 max-md:sr-only">Plots</h2>
        <ul className="flex gap-3 max-md:flex-row md:flex-col">
          {garden.plots.map((plot) => {
            const parts = plotParts(garden, plot.id);
            return (
              parts && (
                <PlotLabel
                  key={plot.id}
                  name={plot.name}
                  view={decidedView(garden, parts, live, stored)}
                  current={!isOfAll && plot.id === current}
                  to={
                    isOfAll
                      ? sheetPath(garden.id, 'bench', 'readout', plot.id)
                      : `${pathname}?plot=${plot.id}`
                  }
                  pumpOn={garden.waterLines.some(
                    (line) => line.plotId === plot.id && live.answers[line.id]?.isOn,
                  )}
                />
              )
            );
          })}
        </ul>
        <button
          type="button"
          onClick={() => setAdding(true)}
          className="press mt-3 min-h-[38px] shrink-0 text-left text-[14px] text-soft underline decoration-rule underline-offset-4 hover:text-ink max-md:mt-0 max-md:px-2"
        >
          Add a plot
        </button>
      </div>
      {adding && (
        <Suspense>
          <AddPlotDialog onClose={() => setAdding(false)} />
        </Suspense>
      )}
    </nav>
  );
}
