import { useState } from 'react';
import { consoleHex, readGatewayAddress, USUAL_PORT } from '@plain-trowel/core/sketch/netTold';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { useGarden } from '../../../data/gardenContext.ts';
import { gateway } from '../../../links/gatewayClient.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { gatewayIssueText } from '../../../words/networkText.ts';
import { useAskBoard } from './useAskBoard.ts';

/** Where this page comes from, if boards can reach it there. */
const here = (over: 'http' | 'mqtt'): string => {
  const place = over === 'http' ? location.host : location.hostname;
  return location.hostname.startsWith('127.') ? '' : (readGatewayAddress(place, over) ?? '');
};

/** Tells the board at the serial line its network and its key. Neither is kept in the garden, in a file or in this browser: they lie on the board alone. */
export function BoardNetwork({ boardId, plan }: { readonly boardId: string; readonly plan: BoardPlan }) {
  const { garden } = useGarden();
  const isAtTheLine = useLive(({ source }) => source?.boardAt(boardId)?.isAtItsConsole ?? false);
  const { ask } = useAskBoard(boardId);
  const over = plan.network?.over ?? 'http';
  const [told, setTold] = useState({ wifi: '', password: '', gateway: here(over), key: '' });
  const [said, setSaid] = useState<{ readonly isWell: boolean; readonly text: string } | null>(null);
  const [isAtWork, setAtWork] = useState(false);
  if (plan.network === null) return null;
  if (!isAtTheLine)
    return (
      <p className="mt-3 max-w-[76ch] text-[14px]">
        This program reports to the gateway over Wi-Fi. Connect the board by its serial line to tell it the
        network and its key; they are kept on the board alone, in no file and in no garden.
      </p>
    );
  const field = (name: keyof typeof told) => ({
    value: told[name],
    onChange: (event: { target: { value: string } }) => setTold({ ...told, [name]: event.target.value }),
  });
  const makeKey = async () => {
    const made = await gateway.makeKey(garden.id, boardId);
    if (made.ok) setTold((before) => ({ ...before, key: made.value.key }));
    setSaid(made.ok ? null : { isWell: false, text: gatewayIssueText(made.issue) });
  };
  const tell = async () => {
    const address = readGatewayAddress(told.gateway, over);
    if (address === null) {
      setSaid({
        isWell: false,
        text: `The gateway’s address is numbers and a port, as 192.168.1.5:${USUAL_PORT[over]}: a board does not look names up.`,
      });
      return;
    }
    setAtWork(true);
    setSaid(null);
    for (const [name, value] of Object.entries({ ...told, gateway: address })) {
      const why = value === '' && name === 'password' ? null : await ask(`net ${name} ${consoleHex(value)}`);
      if (why !== null) {
        setSaid({ isWell: false, text: `The board did not take it: ${why}.` });
        setAtWork(false);
        return;
      }
    }
    setTold({ wifi: '', password: '', gateway: told.gateway, key: '' });
    setSaid({
      isWell: true,
      text: 'The board knows its network and joins it now. Its console says "# net reports" once the gateway has answered.',
    });
    setAtWork(false);
  };
  return (
    <details className="mt-3 max-w-[760px] border-t border-rule pt-2">
      <summary className="press py-1 font-semibold">Tell the board its network</summary>
      <p className="max-w-[70ch] text-[14px]">
        What is typed here goes over the cable onto the board and is kept nowhere else. On an open network,
        and over plain HTTP or MQTT on any, whoever can listen reads the key and may send what this board
        could, and give it orders within its guards.
      </p>
      <form
        className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void tell();
        }}
      >
        <Field label="Name of the Wi-Fi" className="w-[200px]">
          {(props) => <input {...props} {...field('wifi')} autoComplete="off" maxLength={32} required />}
        </Field>
        <Field label="Its password" className="w-[200px]">
          {(props) => (
            <input {...props} {...field('password')} type="password" autoComplete="off" maxLength={63} />
          )}
        </Field>
        <Field label="The gateway" className="w-[220px]">
          {(props) => (
            <input
              {...props}
              {...field('gateway')}
              placeholder={`192.168.1.5:${USUAL_PORT[over]}`}
              autoComplete="off"
              required
            />
          )}
        </Field>
        <Field label="The board’s key" className="w-[420px] max-w-full">
          {(props) => (
            <input
              {...props}
              {...field('key')}
              className="field w-full font-mono"
              autoComplete="off"
              required
            />
          )}
        </Field>
        <Button onClick={() => void makeKey()}>Make a new key</Button>
        <Button look="primary" type="submit" disabled={isAtWork}>
          {isAtWork ? 'Telling …' : 'Tell the board'}
        </Button>
      </form>
      {said && (
        <p
          role={said.isWell ? 'status' : 'alert'}
          className={`mt-2 max-w-[70ch] ${said.isWell ? '' : 'border-l-[3px] border-handle pl-3'}`}
        >
          {said.text}
        </p>
      )}
    </details>
  );
}
