import { lazy, Suspense, useState } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { LineSource } from '../../../links/lineSource.ts';
import { GatewaySource } from '../../../links/gatewaySource.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { LogPanel } from './LogPanel.tsx';
import { SerialPanel } from './SerialPanel.tsx';

const NetworkPanel = lazy(async () => ({
  default: (await import('./network/NetworkPanel.tsx')).NetworkPanel,
}));

type SourceKind = 'stand-in' | 'serial' | 'network' | 'log';

/** Where lines are to come from: a stand-in in the page, a real board on a wire or over the network, or a log. */
export function SourcePanel({
  parts,
  onOpened,
  onBack,
}: {
  parts: PlotParts;
  onOpened: () => void;
  onBack?: () => void;
}) {
  const { openStandIn, elsewhere } = useLiveTools();
  const live = useLive(({ source, status, message }) => ({ source, status, message }));
  const [kind, setKind] = useState<SourceKind>(kindOf(live.source));
  if (elsewhere)
    return (
      <p className="max-w-[60ch] border-l-[3px] border-handle pl-3">
        Another tab is connected to this garden’s boards. Close that tab and load this page again to connect
        here; two at once would write two stories into one log.
      </p>
    );
  return (
    <section aria-label="Source" className="flex flex-col items-start gap-4 pt-1">
      <h2>Where do the numbers come from?</h2>
      <Choice<SourceKind>
        legend="Source"
        options={[
          { value: 'stand-in', label: 'Stand-in boards' },
          { value: 'serial', label: 'A board on a serial port' },
          { value: 'network', label: 'Boards over the network' },
          { value: 'log', label: 'A serial log' },
        ]}
        value={kind}
        onChange={setKind}
      />
      {live.status === 'failed' && live.message !== null && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {live.message}
        </p>
      )}
      {kind === 'stand-in' && (
        <>
          <p className="max-w-[60ch]">
            Boards that run here in the page: each plot is a pot that dries, takes water and settles, with
            your calibration, limits and pump. Good for learning and for trying limits; what they send is
            marked as simulated in the log.
          </p>
          <Button look="primary" onClick={() => void openStandIn().then(onOpened)}>
            Start the stand-in boards
          </Button>
        </>
      )}
      {kind === 'serial' && <SerialPanel parts={parts} onOpened={onOpened} />}
      {kind === 'network' && (
        <Suspense fallback={<p className="text-soft">Asking the gateway …</p>}>
          <NetworkPanel onOpened={onOpened} />
        </Suspense>
      )}
      {kind === 'log' && <LogPanel parts={parts} onOpened={onOpened} />}
      {onBack && (
        <Button look="quiet" onClick={onBack}>
          Back to the readout
        </Button>
      )}
    </section>
  );
}

/** What to offer first: what was open last, so that a port that failed is tried again. */
const kindOf = (source: LineSource | null): SourceKind => {
  if (source instanceof GatewaySource) return 'network';
  if (source === null || source.hands) return 'stand-in';
  return source.can.isLive ? 'serial' : 'log';
};
