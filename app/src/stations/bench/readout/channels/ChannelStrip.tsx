import { byId } from '@plain-trowel/core/quantity/byId';
import { meantValue } from '@plain-trowel/core/garden/bind/channels';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { traceOf } from '@plain-trowel/core/records/trace';
import type { Stretch } from '@plain-trowel/core/signal/streamBuffer';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { streamFaultText } from '../../../../words/faultText.ts';
import { VERDICT_WORDS } from '../../../../words/settlingText.ts';
import { sparkPath } from './sparkPath.ts';
import { useShownUnit } from '../../../../data/useUnits.ts';

const HEIGHT = 40;
const NOTHING: Stretch = { timesMs: new Float64Array(0), values: new Float64Array(0) };

/** One channel: its name, its value, a word on it, and its last minutes. */
export function ChannelStrip({
  channel,
  name,
  windowMs,
  toMs,
  held,
  onHold,
}: {
  channel: Channel;
  name: string;
  windowMs: number;
  toMs: number;
  held: boolean;
  onHold: () => void;
}) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const [ref, width] = useElementWidth<HTMLDivElement>(320);
  const buffer = session.bufferOf(channel.id);
  const since = buffer ? buffer.since(toMs - windowMs) : NOTHING;
  const end = held ? since.timesMs.findLastIndex((time) => time <= toMs) + 1 : since.timesMs.length;
  const trace = traceOf(since.timesMs.subarray(0, end), since.values.subarray(0, end), 90);
  const newest = since.values[end - 1];
  const meant = meantValue(garden, channel, newest ?? 0);
  const { show } = useShownUnit(meant.unit);
  const shown = newest === undefined || meant.value === null ? null : show(meant.value);
  const colour = byId(garden.probes, channel.probeId)?.colour;
  const fault = live.faults.get(channel.id)?.[0];
  const verdict = live.settling.get(channel.id)?.verdict;
  const silence = held ? undefined : live.silent.get(channel.id);
  const word = silence
    ? `no line for ${formatDuration(Math.round(silence.ageS))}`
    : fault
      ? streamFaultText(fault, () => '').name.toLowerCase()
      : verdict
        ? VERDICT_WORDS[verdict]
        : newest === undefined
          ? 'nothing yet'
          : shown === null
            ? 'at the rail'
            : '';
  const decimals =
    channel.quantity === 'moisture' && newest !== undefined && !Number.isInteger(newest) ? 2 : meant.decimals;
  return (
    <li className="grid grid-cols-[minmax(120px,190px)_92px_minmax(0,1fr)_64px] items-center gap-x-3 border-b border-rule py-1 max-sm:grid-cols-[minmax(0,1fr)_92px_64px]">
      <span className="flex min-w-0 items-center gap-2">
        {colour && <ColourFlag colour={colour} />}
        <span className="min-w-0">
          <b className="block truncate font-semibold">{name}</b>
          <span
            className={`block truncate text-[12.5px] ${fault || silence ? 'font-semibold text-handle' : 'text-soft'}`}
          >
            {word}
          </span>
        </span>
      </span>
      <span
        className={`num text-right text-[19px] font-medium whitespace-nowrap ${silence ? 'text-soft' : ''}`}
      >
        {shown === null ? '–' : formatNumber(shown, decimals)}
      </span>
      <div ref={ref} className="min-w-0 max-sm:order-last max-sm:col-span-3">
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${name}, last ${formatDuration(windowMs / 1000)}`}
          className="block"
        >
          <line x1={0} x2={width} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} className="stroke-rule" />
          <path
            d={sparkPath(trace, { fromMs: toMs - windowMs, toMs, width, height: HEIGHT })}
            fill="none"
            strokeWidth={1.6}
            className={held ? 'stroke-soft' : 'stroke-ink'}
          />
        </svg>
      </div>
      <button
        type="button"
        onClick={onHold}
        aria-pressed={held}
        aria-label={`Hold ${name}`}
        className="press justify-center rounded-[2px] border border-rule px-2 py-1 text-[13px] aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
      >
        {held ? 'Held' : 'Hold'}
      </button>
    </li>
  );
}
