import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import type { BusTarget } from '../../../../links/busDesk.ts';
import { useBus, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Progress } from '../../../../ui/Progress.tsx';
import { busMembers } from './busMembers.ts';
import { FoundProbes } from './FoundProbes.tsx';

const READS = 100;
const POLL_MS = 2000;
const WORKING = { scanning: 'Looking for probes', testing: 'Testing' } as const;

/** Polling, looking for probes, the test of a hundred reads; each can be stopped. */
export function BusActions({ target, onFound }: { target: BusTarget; onFound: (address: number) => void }) {
  const { garden } = useGarden();
  const { bus, session } = useLiveTools();
  const state = useBus();
  const members = busMembers(garden);
  const boardId = members[0]?.boardId ?? garden.boards[0]?.id ?? '';
  const poll = () =>
    void bus.poll(members.length > 0 ? members : [{ ...target, label: 'bus' }], POLL_MS, (text, atMs) =>
      session.feed([{ boardId, text, atMs }], state.simulated),
    );
  const failed = [...(state.test?.failed ?? [])];
  const errors = failed.reduce((sum, [, count]) => sum + count, 0);
  return (
    <section aria-label="Work on the bus" className="mt-4 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-3">
        {state.working === 'polling' ? (
          <Button look="primary" onClick={() => bus.stop()}>
            Stop polling
          </Button>
        ) : (
          <Button disabled={state.working !== null} onClick={poll}>
            Poll{' '}
            {members.length > 0 ? members.map((one) => one.label).join(', ') : `address ${target.address}`}{' '}
            each 2 s
          </Button>
        )}
        <Button disabled={state.working !== null} onClick={() => void bus.scan(target.map)}>
          Look for probes, 1 to 247
        </Button>
        <Button disabled={state.working !== null} onClick={() => void bus.test(target, READS)}>
          Test with {READS} reads
        </Button>
      </div>
      {(state.working === 'scanning' || state.working === 'testing') && (
        <div className="mt-2">
          <Progress label={WORKING[state.working]} done={state.doneFrac} onCancel={() => bus.stop()} />
        </div>
      )}
      {state.found && (
        <p className="mt-2">
          {state.found.addresses.length === 0
            ? 'Nobody answered'
            : `${state.found.addresses.length} answered`}{' '}
          up to address <span className="num">{state.found.upTo}</span>.{' '}
          {state.found.addresses.map((address) => (
            <button
              key={address}
              type="button"
              className="press num mr-2 underline underline-offset-4"
              onClick={() => onFound(address)}
            >
              {address}
            </button>
          ))}
        </p>
      )}
      {state.found && <FoundProbes addresses={state.found.addresses} map={target.map} />}
      {state.test && (
        <p className="mt-2">
          <b className={errors > 0 ? 'font-semibold text-handle' : 'font-semibold'}>
            <span className="num">{errors}</span> of <span className="num">{state.test.reads}</span> reads
            failed
          </b>
          {failed.length > 0 &&
            ` (${failed.map(([kind, count]) => `${count} × ${kind.replaceAll('-', ' ')}`).join(', ')})`}
          , <span className="num">{formatNumber(state.test.meanMs)}</span> ms each.{' '}
          {errors > 0 &&
            'On a good line none fails: look at the ends of the pair, its ground, and the termination.'}
        </p>
      )}
    </section>
  );
}
