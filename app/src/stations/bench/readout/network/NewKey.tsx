import type { Standing } from '@plain-trowel/core/protocol/feed';
import { Button } from '../../../../ui/Button.tsx';
import { CopyButton } from '../../../../ui/CopyButton.tsx';

/** A key just made, with everything that its board must know. */
export function NewKey({
  boardName,
  boardId,
  gardenId,
  keyText,
  reach,
  onDone,
}: {
  boardName: string;
  boardId: string;
  gardenId: string;
  keyText: string;
  reach: Standing['reach'];
  onDone: () => void;
}) {
  const hosts = reach.isOpen ? reach.addresses : ['127.0.0.1'];
  const port = location.port === '' ? '' : `:${location.port}`;
  const rows: readonly (readonly [string, readonly string[]])[] = [
    ['Key', [keyText]],
    ['Over HTTP', hosts.map((host) => `${location.protocol}//${host}${port}/api/readings`)],
    ...(reach.mqttPort > 0
      ? ([
          [
            'Over MQTT',
            [
              ...hosts.map((host) => `${host}:${reach.mqttPort}, user ${boardId}, password the key`),
              `reports to trowel/${gardenId}/${boardId}/report`,
              `answers from trowel/${gardenId}/${boardId}/answer`,
            ],
          ],
        ] as const)
      : []),
  ];
  return (
    <section aria-label={`New key of ${boardName}`} className="mt-3 border-y border-ink py-3">
      <h3 className="text-[17px] font-semibold">{boardName}: its new key, shown this once</h3>
      <p className="max-w-[60ch] text-[14px]">
        A board with a program of ours is told it at its cable, on Rules, Sketch; any other takes it in its
        own program. The gateway keeps only a fingerprint of it: a key that is lost is replaced by a new one,
        and the old one then no longer works.
      </p>
      <table className="my-2 w-full table-fixed text-[14px]">
        <tbody>
          {rows.map(([what, lines]) => (
            <tr key={what}>
              <th className="w-[104px] border-b border-rule align-top">{what}</th>
              <td className="num wrap-anywhere whitespace-normal">
                {lines.map((line) => (
                  <div key={line}>{line}</div>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {reach.isOpen ? (
        <p className="max-w-[60ch] text-[14px]">
          Plain HTTP and MQTT are as open as the network they run in: whoever can listen there can read the
          key and send what this board could.
        </p>
      ) : (
        <p className="max-w-[60ch] border-l-[3px] border-handle pl-3 text-[14px]">
          This gateway answers on its own machine alone. For boards elsewhere, set a passphrase and start it
          for your network: npm start -- --set-passphrase, then npm start -- --host 0.0.0.0.
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <CopyButton look="primary" text={keyText} label="Copy the key" />
        <Button look="quiet" onClick={onDone}>
          Done, hide it
        </Button>
      </div>
    </section>
  );
}
