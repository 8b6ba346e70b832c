import type { ActiveAlert } from '@plain-trowel/core/live/alertWatch';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { alertWords } from '@plain-trowel/core/telling/alertWords';
import { dayTime, shortTime } from '@plain-trowel/core/quantity/timeText';

const SNOOZE_S = 4 * 3600;

/** Alerts that are raised, each with what can be done about its telling. */
export function ActiveAlerts({ alerts }: { alerts: readonly ActiveAlert[] }) {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  return (
    <ul aria-label="Alerts that are raised" className="flex flex-col">
      {alerts.map((alert) => {
        const isPutOff = alert.snoozedUntilMs !== null && alert.snoozedUntilMs > live.nowMs;
        return (
          <li
            key={alert.key}
            className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-2"
          >
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{alert.subject}</b>: {alertWords(alert.kind)}
              <span className="block text-[13.5px] text-soft">
                since <span className="num">{dayTime(alert.raisedMs, garden.timeZone)}</span>
                {alert.acknowledged &&
                  (alert.kind === 'line-locked'
                    ? '; seen, and told again until it is unlocked'
                    : '; seen, and not told again')}
                {isPutOff && (
                  <>
                    ; put off until{' '}
                    <span className="num">{shortTime(alert.snoozedUntilMs, garden.timeZone)}</span>
                  </>
                )}
              </span>
            </span>
            {!alert.acknowledged && (
              <>
                <Button onClick={() => session.acknowledgeAlert(alert.key)}>
                  Seen<span className="sr-only">: {alert.subject}</span>
                </Button>
                {!isPutOff && (
                  <Button onClick={() => session.snoozeAlert(alert.key, SNOOZE_S)}>
                    Again in 4 h<span className="sr-only">: {alert.subject}</span>
                  </Button>
                )}
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}
