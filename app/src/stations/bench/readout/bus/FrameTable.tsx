import { explainAnswer, explainRequest, hex, type ExplainedBytes } from '@plain-trowel/core/bus/explain';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Exchange } from '../../../../links/busLink.ts';

function Frame({ title, parts }: { title: string; parts: readonly ExplainedBytes[] }) {
  return (
    <table className="w-auto">
      <caption className="label text-left">{title}</caption>
      <tbody>
        {parts.map((part, at) => (
          <tr key={`${at} ${part.means}`}>
            <td className="num pr-4 whitespace-nowrap">{part.bytes.map(hex).join(' ')}</td>
            <td className="text-[14px]">{part.means}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Both frames of the last question, every byte with what it says. */
export function FrameTable({ exchange }: { exchange: Exchange }) {
  const { sent, received, request, tookMs } = exchange;
  return (
    <details className="mt-3 border-t border-rule pt-2">
      <summary className="press py-1">
        Bytes of the last question and answer, <span className="num">{formatNumber(tookMs)}</span> ms
      </summary>
      <div className="flex flex-wrap items-start gap-x-10 gap-y-4 pt-1">
        <Frame title={`Sent, ${sent.length} bytes`} parts={explainRequest(sent)} />
        {received.length === 0 ? (
          <p className="text-soft">Nothing came back.</p>
        ) : (
          <Frame
            title={`Received, ${received.length} bytes`}
            parts={explainAnswer(received, request.register)}
          />
        )}
      </div>
    </details>
  );
}
