/** Draws wirings part by part for the benchmark of the checks: ids, cables and free pins are handed out here. */
import { catalogueWith } from '../../core/src/catalogue/catalogue.ts';
import type { Facts } from '../../core/src/catalogue/facts.ts';
import type { PinCap } from '../../core/src/catalogue/schema.ts';
import type { Cable, End, Netlist, Part, Wire } from '../../core/src/wiring/netlist.ts';

export const catalogue = catalogueWith([]);

export class Sketchpad {
  readonly parts: Part[] = [];
  readonly wires: Wire[] = [];
  readonly cables: Cable[] = [];
  private readonly taken = new Set<string>();

  add(entryId: string, settings: Facts = {}, more: Partial<Part> = {}): string {
    const id = `${entryId}-${this.parts.filter((one) => one.entryId === entryId).length + 1}`;
    this.parts.push({
      id,
      entryId,
      label: id,
      colour: 'none',
      boardId: null,
      stands: null,
      address: null,
      perReading: false,
      at: null,
      ...more,
      settings: { ...settings },
    });
    return id;
  }

  /** A cable with a colour, so that only its sums are in question. */
  cable(lengthM: number, areaMm2: number): string {
    const id = `cable-${this.cables.length + 1}`;
    this.cables.push({ id, label: `W${this.cables.length + 1}`, colour: 'blue', lengthM, areaMm2 });
    return id;
  }

  /** Ends are written `part.terminal`. */
  wire(from: string, to: string, cableId: string | null = null): void {
    this.wires.push({ id: `wire-${this.wires.length + 1}`, from: endOf(from), to: endOf(to), cableId });
  }

  /** A free pin of a board with what is asked, the plainest first; null when there is none left. */
  pin(
    boardId: string,
    cap: PinCap,
    also: (pin: { caps: readonly PinCap[] }) => boolean = () => true,
  ): string | null {
    const entry = catalogue.get(this.parts.find((one) => one.id === boardId)?.entryId ?? '');
    for (const one of entry?.terminals ?? []) {
      if (one.type !== 'pin' || !one.caps.includes(cap) || !also(one)) continue;
      if (one.strap !== undefined || one.serial || one.highAtBoot || one.lostWithRadio) continue;
      if (this.taken.has(`${boardId}.${one.id}`)) continue;
      // Inputs and bus pins stay free for what needs them.
      if (cap !== 'adc' && one.caps.includes('adc')) continue;
      if (!['sda', 'scl'].includes(cap) && (one.caps.includes('sda') || one.caps.includes('scl'))) continue;
      this.taken.add(`${boardId}.${one.id}`);
      return `${boardId}.${one.id}`;
    }
    return null;
  }

  netlist(): Netlist {
    return { parts: [...this.parts], wires: [...this.wires], cables: [...this.cables] };
  }
}

const endOf = (text: string): End => {
  const at = text.lastIndexOf('.');
  return { part: text.slice(0, at), terminal: text.slice(at + 1) };
};
