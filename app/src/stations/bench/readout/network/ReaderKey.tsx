import { useState } from 'react';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { useGarden } from '../../../../data/gardenContext.ts';
import { gateway } from '../../../../links/gatewayClient.ts';
import { Button } from '../../../../ui/Button.tsx';
import { gatewayIssueText } from '../../../../words/networkText.ts';

/** A key for other programs in the house that want to know how plots stand, over MQTT; they can say nothing. */
export function ReaderKey({ standing, onChanged }: { standing: Standing; onChanged: () => void }) {
  const { garden } = useGarden();
  const [key, setKey] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { reader, reach } = standing;
  if (reach.mqttPort === 0) return null;
  const make = async () => {
    const made = await gateway.makeReaderKey(garden.id);
    setProblem(made.ok ? null : gatewayIssueText(made.issue));
    setKey(made.ok ? made.value.key : null);
    onChanged();
  };
  const cancel = async () => {
    const done = await gateway.revokeReaderKey(garden.id);
    setProblem(done.ok ? null : gatewayIssueText(done.issue));
    setKey(null);
    onChanged();
  };
  const host = reach.isOpen ? (reach.addresses[0] ?? '127.0.0.1') : '127.0.0.1';
  return (
    <section
      aria-label="Other programs"
      className="flex w-full flex-col items-start gap-2 border-t border-rule pt-3"
    >
      <p className="max-w-[65ch] text-[14px]">
        <b className="font-semibold">Other programs in the house</b> can read along over MQTT: percent, unit,
        word and lamp of each plot as retained topics, and alerts as they are told.{' '}
        {reader
          ? `They have a key, made ${dayTime(reader.madeMs, garden.timeZone)}.`
          : 'They have no key yet.'}
      </p>
      {key !== null && (
        <table className="w-full table-fixed text-[14px]">
          <tbody>
            {[
              ['Key, shown this once', key],
              ['Where', `${host}:${reach.mqttPort}, user reader, password the key`],
              ['How plots stand', `trowel/${garden.id}/plots/#`],
              ['Alerts', `trowel/${garden.id}/alerts`],
            ].map(([what, value]) => (
              <tr key={what}>
                <th className="w-[150px] border-b border-rule align-top">{what}</th>
                <td className="num wrap-anywhere whitespace-normal">{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <span className="flex flex-wrap gap-3">
        <Button onClick={() => void make()}>
          {reader ? 'Replace the readers’ key' : 'Make a key for readers'}
        </Button>
        {reader && (
          <Button look="quiet" onClick={() => void cancel()}>
            Cancel it
          </Button>
        )}
      </span>
      {problem !== null && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
    </section>
  );
}
