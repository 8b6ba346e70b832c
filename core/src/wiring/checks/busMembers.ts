/** The lines of a bus with what hangs on them, and the judgement of addresses that I2C and RS-485 share. */
import { type Circuit, type Net, type Spot } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { listOf } from '../look.ts';

export type Bus = { readonly net: Net; readonly members: readonly Spot[] };

/** The nets that carry one line of a bus, with the terminals of parts on it. */
export function busesOf(circuit: Circuit, isLine: (spot: Spot) => boolean): Bus[] {
  return circuit.nets
    .map((net) => ({ net, members: net.spots.filter(isLine) }))
    .filter(({ net, members }) => members.length > 0 && net.wires.length > 0);
}

/** Addresses that two members of a bus share, or that one lacks. */
export function judgeAddresses(
  buses: readonly Bus[],
  what: string,
  report: Parameters<Check['run']>[1],
): void {
  for (const { members } of buses) {
    const users = members.filter((spot) => spot.placed.entry.addresses.length > 0);
    const taken = new Set(users.map((spot) => spot.placed.part.address));
    for (const spot of users) {
      const { part, entry } = spot.placed;
      const free = entry.addresses.find((address) => !taken.has(address));
      const sharing = users.filter((one) => one.placed.part.address === part.address);
      const remedies: Remedy[] =
        free === undefined
          ? []
          : [
              {
                kind: 'set-address',
                label: `Give ${part.label} address ${addressText(what, free)}`,
                part: part.id,
                address: free,
              },
            ];
      if (part.address === null) {
        if (users.length > 1)
          report.unknown(`${part.label} has no ${what} address yet, and it shares the bus.`, [spot], {
            remedies,
          });
        else report.fine();
      } else if (!entry.addresses.includes(part.address))
        report.find(
          'fault',
          `${part.label} cannot have address ${addressText(what, part.address)}.`,
          [spot],
          { remedies },
        );
      else if (sharing.length > 1 && sharing[0] !== spot)
        report.find(
          'fault',
          `${listOf(sharing.map((one) => one.placed.part.label))} share address ${addressText(what, part.address)} on one bus.`,
          sharing,
          { remedies },
        );
      else report.fine();
    }
  }
}

const addressText = (what: string, address: number) =>
  what === 'I2C' ? `0x${address.toString(16).padStart(2, '0')}` : String(address);
