import { windowOf } from '@plain-trowel/core/control/contacts/light';
import { contactConfig } from '@plain-trowel/core/garden/bind/contacts';
import { sunOf } from '@plain-trowel/core/garden/bind/sun';
import type { Contact } from '@plain-trowel/core/garden/document/contactSchema';
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';
import { minuteText } from '@plain-trowel/core/quantity/timeText';

const DAY_S = 86_400;
const HIGH = 26;

/** Today from midnight to midnight: the hours in which the light may be lit, daylight where it is known, and now. */
export function LightDay({ contact }: { contact: Contact }) {
  const { garden } = useGarden();
  const [ref, width] = useElementWidth<HTMLDivElement>(640);
  const minuteMs = useLive(({ nowMs }) => Math.floor(nowMs / 60_000) * 60_000);
  const localTime = localTimeIn(garden.timeZone);
  const sun = sunOf(garden, localTime)(minuteMs);
  const config = contactConfig(garden, contact, null);
  if (config.rule.kind !== 'light') return null;
  const window = windowOf(config.rule, sun, config.guards.mostOnS);
  const x = (second: number) => (second / DAY_S) * (width - 2) + 1;
  const lit =
    typeof window === 'string'
      ? []
      : window.fromS <= window.toS
        ? [[window.fromS, window.toS] as const]
        : ([
            [0, window.toS],
            [window.fromS, DAY_S],
          ] as const);
  const said =
    typeof window === 'string'
      ? 'Today it stays dark.'
      : `Today it may be lit from ${clock(window.fromS)} to ${clock(window.toS)}.`;
  return (
    <figure ref={ref} className="mt-3 max-w-[640px]">
      <svg
        width={width}
        height={HIGH + 22}
        role="img"
        aria-label={`${said}${sun ? ` The sun is up from ${clock(sun.riseS)} to ${clock(sun.setS)}.` : ''}`}
        className="block text-[12.5px]"
      >
        <rect x={1} y={1} width={width - 2} height={HIGH} className="fill-label stroke-ink" />
        {sun && (
          <rect
            x={x(sun.riseS)}
            y={2}
            width={Math.max(0, x(sun.setS) - x(sun.riseS))}
            height={7}
            className="fill-rule"
          />
        )}
        {lit.map(([fromS, toS]) => (
          <rect
            key={fromS}
            x={x(fromS)}
            y={11}
            width={Math.max(1, x(toS) - x(fromS))}
            height={HIGH - 12}
            className="fill-chaff"
          />
        ))}
        <line
          x1={x(localTime(minuteMs).daySecond)}
          x2={x(localTime(minuteMs).daySecond)}
          y1={0}
          y2={HIGH + 3}
          strokeWidth={2}
          className="stroke-handle"
        />
        {[0, 6, 12, 18, 24].map((hour) => (
          <text
            key={hour}
            x={x(hour * 3600)}
            y={HIGH + 17}
            textAnchor={hour === 0 ? 'start' : hour === 24 ? 'end' : 'middle'}
            className="fill-ink font-mono"
          >
            {minuteText((hour * 60) % 1440)}
          </text>
        ))}
      </svg>
      <figcaption className="text-[13.5px] text-soft">
        {said} {sun ? 'The thin band on top is daylight, the red line is now.' : 'The red line is now.'}
        {contact.rule.kind === 'light' && contact.rule.cell && ' Within these hours the light cell decides.'}
      </figcaption>
    </figure>
  );
}

const clock = (second: number) => minuteText(Math.floor(second / 60));
