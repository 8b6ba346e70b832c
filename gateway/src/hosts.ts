/** By which names and addresses the gateway may be called. */
import { hostname, networkInterfaces } from 'node:os';

/** By which names the gateway may be called, whether others than this machine reach it, over what, and where over MQTT (0: nowhere). */
export type Reach = {
  readonly names: ReadonlySet<string>;
  readonly isOpen: boolean;
  readonly mqttPort: number;
  /** It is spoken to over TLS: browsers then allow what they allow secure pages alone. */
  readonly isSecure: boolean;
};

const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];

/** True for an address that only this machine reaches. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || /^127\./.test(host);

/** The addresses of this machine in its networks. */
export const networkAddresses = (): readonly string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ internal, address }) => !internal && !address.startsWith('fe80'))
    .map(({ address, family }) => (family === 'IPv6' ? `[${address}]` : address));

/** Every name that a request may carry, in small letters and without a port. */
export function ownNames(host: string, name: string | null): ReadonlySet<string> {
  const given = name === null ? [] : [name];
  if (isLoopback(host)) return new Set([...LOOPBACK, ...given]);
  const own = hostname().toLowerCase();
  return new Set([...LOOPBACK, ...networkAddresses(), own, `${own}.local`, ...given]);
}
