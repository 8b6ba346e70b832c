/** Parts on a board's I2C: their pins and addresses, and what each channel asks of them. */
import { i2cRouteOf, type I2cRoute } from '../garden/bind/overI2c.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import { isType, spotsOf, type Circuit, type Placed } from '../wiring/circuit.ts';
import { pinOn } from '../wiring/pinUse.ts';
import type { SketchI2c, SketchInput, SketchProblem } from './plan.ts';
import { pinOfName, type Pin } from './pins.ts';

/** The pin of the board on a line of the bus. */
export function pinOf(circuit: Circuit, placed: Placed, line: 'sda' | 'scl'): Pin | null {
  const spot = spotsOf(placed).find((one) => isType(one, 'i2c') && one.terminal.line === line);
  const pin = spot && pinOn(circuit, spot);
  return pin ? pinOfName(pin.terminal.name) : null;
}

/** Its own where one is set, the only one where it has no other. */
export const addressOf = ({ part, entry }: Placed): number | null =>
  part.address ?? (entry.addresses.length === 1 ? (entry.addresses[0] ?? null) : null);

type Asks = { -readonly [List in keyof SketchI2c]: SketchI2c[List][number][] };

/** Collects what is asked over I2C while channels are gone through. */
export class I2cAsks {
  private readonly asks: Asks = { parts: [], asks: [] };

  constructor(
    private readonly garden: Garden,
    private readonly circuit: Circuit,
  ) {}

  get all(): SketchI2c | null {
    return this.asks.asks.length > 0 ? this.asks : null;
  }

  /** Null for a channel that is not read over I2C. */
  input(channel: Channel, name: RegExp): SketchInput | SketchProblem | null {
    const route = i2cRouteOf(this.garden, channel);
    if (!route) return null;
    const { label } = byId(this.garden.probes, channel.probeId) ?? channel;
    const what = channel.label || label || channel.quantity;
    if (!name.test(channel.streamName)) return { kind: 'no-name', what, sheet: 'bench/readout' };
    const found = this.ask(route, what);
    if ('kind' in found) return found;
    return { channelId: channel.id, name: channel.streamName, label: what, ...found };
  }

  private ask(
    { placed, read }: I2cRoute,
    what: string,
  ): SketchProblem | Pick<SketchInput, 'reads' | 'pin' | 'second' | 'asked'> {
    const at = placed.part.label;
    const [sda, scl] = [pinOf(this.circuit, placed, 'sda'), pinOf(this.circuit, placed, 'scl')];
    const address = addressOf(placed);
    if (!read || !placed.entry.i2c) return { kind: 'not-told', what: at, sheet: 'plan/parts' };
    if (!sda || !scl) return { kind: 'no-i2c', what: at, sheet: 'plan/wiring' };
    if (address === null) return { kind: 'no-address', what: at, sheet: 'plan/wiring' };
    const { begin } = placed.entry.i2c;
    // What must be told how to work is told once, and forgets it with its supply.
    if (placed.part.perReading && begin.length > 0) return { kind: 'bus-fed', what, sheet: 'plan/wiring' };
    const { parts, asks } = this.asks;
    const known = parts.findIndex(
      (one) => one.address === address && one.sda.number === sda.number && one.scl.number === scl.number,
    );
    if (known < 0) parts.push({ sda, scl, address, begin });
    asks.push({ part: known < 0 ? parts.length - 1 : known, read });
    const { decimals, least, most } = read;
    const asked = { place: asks.length - 1, address, decimals, least, most };
    return { reads: 'i2c', pin: sda, second: scl, asked };
  }
}
