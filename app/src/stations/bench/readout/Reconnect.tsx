import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { SERIAL_SPEEDS, SerialSource } from '../../../links/serialSource.ts';
import { Button } from '../../../ui/Button.tsx';

/** Beside what is wrong with a board's lines: the likely speed and the others one press away, or the same port once more. */
export function Reconnect() {
  const live = useLive(({ source, status, lineFault }) => ({ source, status, lineFault }));
  const { session } = useLiveTools();
  const { source, status, lineFault } = live;
  if (!(source instanceof SerialSource)) return null;
  const at = (baudRate: number) => void session.connect(source.again(baudRate));
  if (status === 'ended' || status === 'failed')
    return (
      <p className="mt-2">
        <Button look="primary" onClick={() => at(source.baudRate)}>
          Reconnect
        </Button>
      </p>
    );
  if (lineFault?.kind !== 'garbage') return null;
  const likely = lineFault.likelyBaud;
  return (
    <section aria-label="Another speed" className="mt-2">
      <p className="text-[13.5px] text-soft">
        Opening the port again may restart the board, and a pump may twitch: unplug the pump first.
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {likely !== null && (
          <Button look="primary" onClick={() => at(likely)}>
            Reconnect at {formatNumber(likely)}
          </Button>
        )}
        {SERIAL_SPEEDS.filter((speed) => speed !== likely && speed !== source.baudRate).map((speed) => (
          <Button key={speed} className="min-h-[34px]! px-2! py-0! text-[14px]!" onClick={() => at(speed)}>
            {formatNumber(speed)}
          </Button>
        ))}
      </div>
    </section>
  );
}
