/** What a board is told of its network at its console ("net wifi 4d79…"): as hexadecimal text, so that no letter of a name or a password is in the way. */

/** UTF-8 as hexadecimal digits. */
export const consoleHex = (text: string): string =>
  Array.from(new TextEncoder().encode(text), (byte) => byte.toString(16).padStart(2, '0')).join('');

/** Where the gateway listens unless it is told otherwise. */
export const USUAL_PORT = { http: 4860, mqtt: 4861 } as const;

/** An address that a board can use without looking a name up: four numbers and a port; without a port the usual one. Null for every other. */
export function readGatewayAddress(typed: string, over: keyof typeof USUAL_PORT = 'http'): string | null {
  const [, host = '', port = String(USUAL_PORT[over])] =
    /^(?:http:\/\/)?(\d{1,3}(?:\.\d{1,3}){3})(?::(\d{1,5}))?\/?$/.exec(typed.trim()) ?? [];
  const isHost = host !== '' && host.split('.').every((one) => Number(one) < 256);
  return isHost && Number(port) > 0 && Number(port) < 65_536 ? `${host}:${Number(port)}` : null;
}
