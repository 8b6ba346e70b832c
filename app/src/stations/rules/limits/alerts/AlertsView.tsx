import { DEFAULT_ALERTS, type AlertRule } from '@plain-trowel/core/control/alerts';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { AwayPanel } from './away/AwayPanel.tsx';
import { ActiveAlerts } from './ActiveAlerts.tsx';
import { BoardWatch } from './BoardWatch.tsx';
import { Pending } from './Pending.tsx';
import { TellingPanel } from './TellingPanel.tsx';
import { AlertRow } from './AlertRow.tsx';

/** What is told to the person: what is raised now, and for each kind when it is raised, repeated and kept quiet. */
export function AlertsView() {
  const { garden, commit } = useGarden();
  const { alerts, pendingAlerts, source, status, nowMs } = useLive();
  const set = (label: string, rules: readonly AlertRule[]) =>
    void commit(label, (before) => ({ garden: { ...before, alerts: rules.map((one) => ({ ...one })) } }));
  return (
    <>
      {alerts.length > 0 ? (
        <ActiveAlerts alerts={alerts} />
      ) : (
        <p className="max-w-[68ch] text-[17px]">
          {source === null
            ? 'Nothing is connected, so nothing is watched from here.'
            : status === 'open' && source.can.isLive
              ? 'No alert is raised.'
              : 'Nothing is heard just now, so nothing is watched from here.'}
        </p>
      )}
      <Pending alerts={pendingAlerts} nowMs={nowMs} />
      <TellingPanel />
      <AwayPanel />
      <h2 className="mt-4 border-t border-rule pt-3">When they are told</h2>
      <p className="mt-1 max-w-[70ch] text-[14px] text-soft">
        An alert is raised when it has been so for a while, and is over when the value has come back by its
        hysteresis. In quiet hours nothing is told; what is still so afterwards is told then. A locked line is
        told again until it is unlocked. They are shown here, in the rail and in the log.
      </p>
      <Scroll label="Alerts" className="mt-2">
        <table className="min-w-[760px] [&_td]:align-middle">
          <thead>
            <tr>
              <th>On</th>
              <th>Alert</th>
              <th className="text-right">So for, min</th>
              <th className="text-right">Comes back by</th>
              <th className="text-right">Again after, h</th>
              <th>Quiet hours</th>
            </tr>
          </thead>
          <tbody>
            {garden.alerts.map((rule) => (
              <AlertRow
                key={rule.kind}
                rule={rule}
                onChange={(to) =>
                  set(
                    `alert: ${rule.kind}`,
                    garden.alerts.map((one) => (one.kind === rule.kind ? { ...one, ...to } : one)),
                  )
                }
              />
            ))}
          </tbody>
        </table>
      </Scroll>
      <Button className="mt-3" onClick={() => set('alerts as at first', DEFAULT_ALERTS)}>
        Back to the usual settings
      </Button>
      <BoardWatch />
    </>
  );
}
