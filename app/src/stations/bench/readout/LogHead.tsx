import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { SPEEDS } from '../../../links/lineSource.ts';
import type { LogSource, LogSpeed } from '../../../links/logSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** How fast a log is played. */
export const PACES: readonly { readonly value: LogSpeed; readonly label: string }[] = [
  ...SPEEDS.map((value) => ({ value, label: `×${value}` })),
  { value: 'all', label: 'show all' },
];

/** The head of a log that is open: what it is, from when to when, what is in it, how fast it plays. */
export function LogHead({ source }: { source: LogSource }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const { fromMs, toMs, lines } = source.span;
  const isReal = source.mayRecord;
  const day = (ms: number) => dayTime(ms, garden.timeZone);
  const names = live.streams.map((one) => one.name);
  const shown = names.slice(0, 4).join(', ');
  return (
    <section
      aria-label="Log"
      className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule pb-2"
    >
      <p className="min-w-0 flex-1 basis-[320px] text-[14px]">
        <b className="font-semibold">{source.label}</b>
        {': '}
        <span className="num">{formatNumber(lines)}</span> {lines === 1 ? 'line' : 'lines'}
        {isReal ? (
          <>
            {' from '}
            <span className="num">{day(fromMs)}</span> to <span className="num">{day(toMs)}</span>
          </>
        ) : (
          ', their times made up'
        )}
        {names.length > 0 && (
          <span className="text-soft">
            {'; '}
            {names.length === 1 ? 'one column' : `${names.length} columns`}: {shown}
            {names.length > 4 && ' …'}
          </span>
        )}
      </p>
      <Choice<LogSpeed>
        legend="Pace"
        showLegend
        options={PACES}
        value={source.speed}
        onChange={(speed) => {
          source.setSpeed(speed);
          session.refresh();
        }}
      />
      {live.status === 'ended' && <Button onClick={() => void session.connect(source)}>Play again</Button>}
    </section>
  );
}
