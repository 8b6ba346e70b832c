import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { newFolder } from './mailbox/mailboxForTests.ts';
import { openGateway, type Gateway } from './gateway.ts';
import type { Reach } from './hosts.ts';
import { createListener } from './server.ts';

/** As it is without a word: for this machine alone. */
export const HERE: Reach = {
  names: new Set(['localhost', '127.0.0.1', '[::1]']),
  isOpen: false,
  mqttPort: 0,
  isSecure: false,
};
export const OPEN: Reach = { ...HERE, isOpen: true };

export const newGateway = (clock?: () => number, limitBytes = 1e9): Gateway =>
  openGateway(newFolder(), limitBytes, clock);

/** A gateway that answers over HTTP. */
export async function served(gateway: Gateway, reach: Reach = HERE) {
  const server = http.createServer(createListener('/no-such-app', gateway, reach)).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const text = typeof body === 'string' ? body : JSON.stringify(body);
    const response = await fetch(`${address}${path}`, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: text }),
    });
    const said = await response.text();
    return {
      status: response.status,
      headers: response.headers,
      said: (said.startsWith('{') ? JSON.parse(said) : said) as Record<string, unknown>,
    };
  };
  const close = async () => {
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    await gateway.close();
  };
  return { address, ask, close };
}
