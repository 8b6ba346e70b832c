import { clsx } from 'clsx';
import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../data/gardenContext.ts';
import { useLive, useLiveTools } from '../links/liveContext.ts';
import { clockTime } from '@plain-trowel/core/quantity/timeText';
import { GardenMenu } from './GardenMenu.tsx';
import { sheetPath, STATIONS } from './stations.ts';
import { usePlotScope } from './usePlotScope.ts';

/** State of the link, in words: what reports, how fast, and whether something needs a look. */
function LinkState() {
  const { garden } = useGarden();
  const live = useLive();
  const { elsewhere } = useLiveTools();
  const speed = live.source?.clock?.speed;
  const pumping = Object.values(live.answers).some((answer) => answer.isOn);
  const label = live.source?.label ?? 'No board connected';
  return (
    <div
      role="status"
      className="py-3.5 pr-5 pl-4 text-right text-[13px] leading-snug text-soft max-md:hidden"
    >
      <AlertCount />
      <b className="font-semibold text-ink">{live.status === 'failed' ? 'Connection failed' : label}</b>
      {speed !== undefined && speed !== 1 && <span className="num"> ×{speed}</span>}
      <br />
      {live.status === 'open' ? (
        <>
          <span className="num">{clockTime(live.nowMs, garden.timeZone)}</span>
          {', '}
          {pumping ? (
            <b className="font-semibold text-rill">pump running</b>
          ) : (
            <span className="num">{formatNumber(live.recent.lines / live.recent.durationS, 1)} lines/s</span>
          )}
        </>
      ) : (
        (live.message ?? (elsewhere ? 'Connected in another tab' : 'Open one on Bench, Readout'))
      )}
    </div>
  );
}

/** The same in two words, for a phone. */
function ShortState() {
  const { status, isStandIn } = useLive(({ status, source }) => ({
    status,
    isStandIn: source?.hands !== null && source !== null,
  }));
  const words =
    status === 'open'
      ? isStandIn
        ? 'stand-ins run'
        : 'connected'
      : status === 'failed'
        ? 'link failed'
        : 'not connected';
  return (
    <span
      className={clsx('whitespace-nowrap', status === 'failed' ? 'font-semibold text-handle' : 'text-soft')}
    >
      {words}
    </span>
  );
}

/** How many alerts are raised and not yet seen, as a way to them. */
function AlertCount() {
  const { garden } = useGarden();
  const plotId = usePlotScope();
  const open = useLive(({ alerts }) => alerts.filter((alert) => !alert.acknowledged).length);
  if (open === 0) return null;
  const path = sheetPath(garden.id, 'rules', 'limits', plotId);
  return (
    <NavLink
      to={`${path}${path.includes('?') ? '&' : '?'}view=alerts`}
      className="press mr-2.5 inline-flex min-h-0! items-center gap-1.5 border border-handle px-1.5 font-semibold whitespace-nowrap text-handle max-md:mr-0 max-md:min-h-[44px]!"
    >
      <span className="num">{open}</span> {open === 1 ? 'alert' : 'alerts'}
    </NavLink>
  );
}

/** The rail across the top: the garden, the stations in the order of the work, and what is connected. */
export function StationRail() {
  const { garden } = useGarden();
  const plotId = usePlotScope();
  const { pathname } = useLocation();
  const open = pathname.split('/')[3];
  const station = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // On a phone the stations scroll sideways; the open one must be in sight.
    station.current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [open]);
  return (
    <header className="no-print grid grid-cols-[1fr] border-b-2 border-ink bg-paper md:sticky md:top-0 md:z-10 md:grid-cols-[216px_1fr_auto]">
      <div className="flex items-center md:contents">
        <div className="min-w-0 flex-1 md:contents">
          <GardenMenu />
        </div>
        <span className="flex items-center gap-3 pr-4 text-[13px] md:hidden">
          <ShortState />
          <AlertCount />
        </span>
      </div>
      <nav aria-label="Stations" className="flex overflow-x-auto max-md:border-t max-md:border-rule">
        {STATIONS.map((one) => {
          const isOpen = one.id === open;
          return (
            <div
              key={one.id}
              ref={isOpen ? station : null}
              className={clsx(
                'shrink-0 border-r border-rule px-5 pt-3 pb-0',
                isOpen ? 'bg-ink text-paper md:min-w-[230px]' : 'text-soft',
              )}
            >
              <NavLink
                to={sheetPath(garden.id, one.id, one.sheets[0].id, plotId)}
                className={clsx('block text-[17px] leading-tight font-semibold', isOpen && 'text-paper')}
                aria-current={isOpen ? 'true' : undefined}
              >
                {one.name}
              </NavLink>
              <div className="mt-0.5 flex gap-4 text-[14px]">
                {one.sheets.map((sheet) => (
                  <NavLink
                    key={sheet.id}
                    to={sheetPath(garden.id, one.id, sheet.id, plotId)}
                    className={({ isActive }) =>
                      clsx(
                        'flex min-h-[34px] items-start border-b-[3px] pt-1 max-md:min-h-[44px] max-md:items-center',
                        isActive ? 'border-handle-on-ink text-paper' : 'border-transparent',
                        !isActive && (isOpen ? 'text-paper/80' : 'text-[13.5px]'),
                      )
                    }
                  >
                    {sheet.name}
                  </NavLink>
                ))}
              </div>
            </div>
          );
        })}
      </nav>
      <LinkState />
    </header>
  );
}
