import { useQuery } from '@tanstack/react-query';
import { create } from 'qrcode';
import { useState } from 'react';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { shortTime } from '@plain-trowel/core/quantity/timeText';
import { useGarden } from '../../../data/gardenContext.ts';
import { arrivalPath } from '../../../home/arrival.ts';
import { gateway } from '../../../links/gatewayClient.ts';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Select } from '../../../ui/Select.tsx';
import { gatewayIssueText } from '../../../words/networkText.ts';

/** This page's own address first, where others can reach it, then those of the machine; plain ones before long ones. */
function hostsOf({ addresses }: Standing['reach']): readonly string[] {
  const port = location.port === '' ? '' : `:${location.port}`;
  const isOwn = !/^(localhost|127\.|\[::1\])/.test(location.hostname);
  const others = [...addresses].sort((a, b) => Number(a.startsWith('[')) - Number(b.startsWith('[')));
  return [...new Set([...(isOwn ? [location.host] : []), ...others.map((one) => `${one}${port}`)])];
}

/** A picture that a phone reads: the gateway's address in this network, with a ticket that lets it in once. */
export function PhoneDialog({ standing, onClose }: { standing: Standing; onClose: () => void }) {
  const { garden } = useGarden();
  const hosts = hostsOf(standing.reach);
  const [chosen, setChosen] = useState(hosts[0] ?? '');
  const ticket = useQuery({
    queryKey: ['phone ticket', garden.id],
    queryFn: () => gateway.ticket(),
    enabled: standing.reach.isOpen && hosts.length > 0,
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  const asked = ticket.data;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Open on your phone"
      description="The phone must be in the same network. Point its camera at the picture; it then has this garden as it was published, and Today."
    >
      {!standing.reach.isOpen ? (
        <p className="border-l-[3px] border-handle pl-3">
          This gateway answers on its own machine alone. Stop it, set a passphrase (npm start --
          --set-passphrase) and start it for your network: npm start -- --host 0.0.0.0
        </p>
      ) : hosts.length === 0 ? (
        <p className="border-l-[3px] border-handle pl-3">
          The gateway’s machine is in no network now: connect it, then open this again.
        </p>
      ) : asked === undefined ? (
        <p className="text-soft">Asking the gateway for a ticket …</p>
      ) : !asked.ok ? (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {gatewayIssueText(asked.issue)}
        </p>
      ) : (
        <>
          {hosts.length > 1 && (
            <Select
              label="By which address"
              hint="Another one, if the phone does not find it."
              className="mb-3 w-[320px] max-w-full"
              value={chosen}
              groups={[{ name: '', options: hosts.map((one) => ({ value: one, label: one })) }]}
              onChange={setChosen}
            />
          )}
          <Picture
            text={`${location.protocol}//${chosen}${arrivalPath({ gardenId: garden.id, token: asked.value.token })}`}
          />
          <p className="mt-2 text-[14px] text-soft">
            It lets one phone in, once, until{' '}
            <span className="num">{shortTime(asked.value.untilMs, garden.timeZone)}</span>. Whoever reads it
            can do there what you can do here.
          </p>
          {location.protocol === 'http:' && (
            <p className="mt-2 max-w-[60ch] text-[14px] text-soft">
              Over plain HTTP the phone shows everything while it reaches the gateway; it shows no
              notifications, cannot tell whether the garden is open in a second tab, cannot be put on the home
              screen, and does not open without the gateway. Browsers allow all that over HTTPS alone:
              docs/GATEWAY.md says how to get there.
            </p>
          )}
        </>
      )}
      <div className="mt-4 flex gap-3">
        {asked?.ok && <Button onClick={() => void ticket.refetch()}>A new ticket</Button>}
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </Dialog>
  );
}

/** Light squares round it, so that cameras find its edges; dark on light in the dark as well. */
const QUIET = 4;
function Picture({ text }: { text: string }) {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  const { size } = modules;
  const path = Array.from({ length: size * size }, (_, at) => at)
    .filter((at) => modules.data[at] === 1)
    .map((at) => `M${(at % size) + QUIET} ${Math.floor(at / size) + QUIET}h1v1h-1z`)
    .join('');
  const side = size + 2 * QUIET;
  return (
    <svg
      role="img"
      aria-label={`Picture of the address ${text.slice(0, text.indexOf('#'))} with a ticket`}
      viewBox={`0 0 ${side} ${side}`}
      className="block w-[min(300px,80vw)]"
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#ffffff" />
      <path d={path} fill="#000000" />
    </svg>
  );
}
