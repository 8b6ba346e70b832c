import type { PendingAlert } from '@plain-trowel/core/live/alertWatch';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { alertWords } from '@plain-trowel/core/telling/alertWords';
import { minuteText } from '@plain-trowel/core/quantity/timeText';

/** What has begun and is not told yet, with when it will be: "Lemon barrel: too dry, for 15 s; told in 59 min". */
export function Pending({ alerts, nowMs }: { alerts: readonly PendingAlert[]; nowMs: number }) {
  if (alerts.length === 0) return null;
  return (
    <ul aria-label="Alerts that wait" className="mt-2 text-[14.5px] text-soft">
      {alerts.map((one) => (
        <li key={one.key}>
          {one.subject}: {alertWords(one.kind)}, for{' '}
          <span className="num">{formatDuration(Math.max(0, nowMs - one.sinceMs) / 1000)}</span>;{' '}
          {one.tellsMs > nowMs ? (
            <>
              told in <span className="num">{formatDuration((one.tellsMs - nowMs) / 1000)}</span>
              {one.quiet && ', unless those are quiet hours'}
            </>
          ) : one.quiet ? (
            `told when the quiet hours end, at ${minuteText(one.quiet.toMinute)}`
          ) : (
            'told now'
          )}
        </li>
      ))}
    </ul>
  );
}
