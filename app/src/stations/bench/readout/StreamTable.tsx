import { setStreamName } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { workRate } from '@plain-trowel/core/signal/workRate';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { notUnderstoodText } from '../../../words/issueText.ts';

/** Names that the board prints and that belong to no probe yet: one of them may be this plot's. */
function OfferedNames({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const { channel, probe } = parts;
  if (!channel) return null;
  const taken = new Set(
    garden.channels.filter((one) => one.boardId === channel.boardId).map((one) => one.streamName),
  );
  const offered = live.streams.filter(
    (stream) => stream.boardId === channel.boardId && !taken.has(stream.name),
  );
  if (offered.length === 0) return null;
  const listen = (name: string) => () =>
    void commit(
      `listen to ${name}`,
      (before) => ({ garden: setStreamName(before, channel.id, name) }),
      `${probe?.label ?? 'The probe'} now listens to ${name}.`,
    );
  return (
    <section aria-label="Names the board prints" className="mt-3">
      <h2 className="label">The board also prints</h2>
      <ul className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
        {offered.slice(0, 12).map((stream) => (
          <li key={stream.name} className="flex items-center gap-3">
            <span className="num">
              {stream.name} = {formatCounts(stream.last)}
            </span>
            <Button onClick={listen(stream.name)}>Use it for {probe?.label}</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What came in: lines counted, their rate, and the ones that could not be read, with the reason. */
export function StreamTable({ parts }: { parts: PlotParts }) {
  const live = useLive();
  return (
    <>
      <OfferedNames parts={parts} />
      <p className="mt-2 text-[14px]">
        Lines come at <WorkedNumber id="rate" worked={workRate(live.recent.lines, live.recent.durationS)} />.
      </p>
      <details className="text-[14px]">
        <summary className="press py-1">
          <span className="num">{formatNumber(live.understood)}</span> lines read;{' '}
          <b className={live.notUnderstood > 0 ? 'font-semibold text-handle' : 'font-normal'}>
            <span className="num">{formatNumber(live.notUnderstood)}</span> not understood
          </b>
        </summary>
        {live.badLines.length === 0 ? (
          <p className="text-soft">
            Understood are a bare number, name=value or name:value pairs, columns with or without a header,
            and one JSON object a line.
          </p>
        ) : (
          <table className="mt-1">
            <thead>
              <tr>
                <th>Line</th>
                <th>Why not</th>
              </tr>
            </thead>
            <tbody>
              {live.badLines.map((line, at) => (
                <tr key={`${at}${line.text}`}>
                  <td className="font-mono text-[13px] wrap-anywhere">{line.text}</td>
                  <td>{notUnderstoodText(line.reason)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </details>
    </>
  );
}
