/** What the bus probe stand-in is told at the terminal. */
import { parseArgs } from 'node:util';
import { BUILT_IN_MAPS, mapOf, type RegisterMap } from '@plain-trowel/core/bus/registers';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';
import { BUS_FAULTS, type BusFault } from './busProbe.ts';

export type BusOptions =
  | { readonly kind: 'help' }
  | {
      readonly kind: 'run';
      readonly where: { readonly tcpPort: number } | { readonly device: string; readonly baudRate: number };
      readonly addresses: readonly number[];
      readonly map: RegisterMap;
      readonly fault: BusFault;
      readonly faultFrac: number;
    };

const faultName = (fault: BusFault) => fault.toLowerCase().replaceAll(' ', '-');

export const HELP = `A steel-rod probe on a bus, made up: a Modbus RTU slave that answers real clients.

  npm run standin:bus-probe -- [options]

  --tcp PORT          listen on this TCP port of this machine, RTU frames as they are (default 5020)
  --serial DEVICE     use a serial device instead, for example one end of a linked pair
  --baud SPEED        its speed, default 9600 (8 data bits, no parity, 1 stop bit)
  --address A[,B…]    addresses of the probes on the bus, 1 to 247, default 1; the same twice makes them collide
  --map ID            register map: ${BUILT_IN_MAPS.map((map) => `${map.id} (${map.name})`).join(', ')}; default seven
  --fault KIND        ${BUS_FAULTS.map(faultName).join(', ')}; default none
  --rate SHARE        share of the answers that the fault spoils, 0 to 1, default 1
  --help              this text`;

/** The issue is a sentence for the person at the terminal. */
export function readBusOptions(args: readonly string[]): Result<BusOptions, string> {
  const text = { type: 'string' } as const;
  let values: Record<string, string | boolean | undefined>;
  try {
    ({ values } = parseArgs({
      args: [...args],
      options: {
        tcp: text,
        serial: text,
        baud: text,
        address: text,
        map: text,
        fault: text,
        rate: text,
        help: { type: 'boolean' },
      },
    }));
  } catch (error) {
    return fail(`${error instanceof Error ? error.message : 'An option was not understood.'} Try --help.`);
  }
  if (values.help === true) return ok({ kind: 'help' });
  const given = (name: string, otherwise: string) =>
    typeof values[name] === 'string' ? values[name] : otherwise;
  const whole = (name: string, otherwise: string, most: number) => {
    const value = Number(given(name, otherwise));
    return Number.isInteger(value) && value >= 1 && value <= most ? value : null;
  };
  const addresses = given('address', '1').split(',').map(Number);
  if (addresses.some((one) => !Number.isInteger(one) || one < 1 || one > 247))
    return fail(`"${given('address', '1')}" is not a list of addresses from 1 to 247.`);
  const map = mapOf([], given('map', 'seven'));
  if (!map) return fail(`There is no register map "${given('map', '')}". Try --help.`);
  const fault = BUS_FAULTS.find((one) => faultName(one) === given('fault', 'none'));
  if (!fault) return fail(`There is no fault "${given('fault', '')}". Try --help.`);
  const faultFrac = Number(given('rate', '1'));
  if (!(faultFrac >= 0 && faultFrac <= 1)) return fail(`"${given('rate', '')}" is not a share from 0 to 1.`);
  const baudRate = whole('baud', '9600', 1_000_000);
  if (baudRate === null) return fail(`"${given('baud', '')}" is not a speed in baud.`);
  const tcpPort = whole('tcp', '5020', 65_535);
  if (tcpPort === null) return fail(`"${given('tcp', '')}" is not a port from 1 to 65535.`);
  const where = typeof values.serial === 'string' ? { device: values.serial, baudRate } : { tcpPort };
  return ok({ kind: 'run', where, addresses, map, fault, faultFrac });
}
