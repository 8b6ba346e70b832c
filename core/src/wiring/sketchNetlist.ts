/** A netlist from a few lines of text, for tests, examples and benchmarks: `"l1: probe-capacitive; l1.out - roof.p34 @C1"`. */
import type { Facts } from '../catalogue/facts.ts';
import type { Cable, End, Netlist, Part } from './netlist.ts';

type PartMore = Partial<Omit<Part, 'id' | 'entryId' | 'settings'>> & { readonly settings?: Facts };
export type Sketched = {
  readonly parts?: Readonly<Record<string, PartMore>>;
  readonly cables?: Readonly<Record<string, Partial<Omit<Cable, 'id'>>>>;
};

/**
 * Lines are parted by semicolons or line ends. `id: entry` is a part, `one.terminal - other.terminal` a wire, `@name` puts it in a cable.
 * @throws RangeError for a line that is neither: it is our own text.
 */
export function sketchNetlist(text: string, more: Sketched = {}): Netlist {
  const parts: Part[] = [];
  const wires: Netlist['wires'] = [];
  const cables = new Map<string, Cable>();
  for (const line of text.split(/[;\n]/).map((one) => one.trim())) {
    const part = /^([a-z0-9-]+): ([a-z0-9-]+)$/.exec(line);
    const wire = /^([a-z0-9-]+)\.([a-z0-9-]+) - ([a-z0-9-]+)\.([a-z0-9-]+)(?: @([a-z0-9-]+))?$/.exec(line);
    if (part) {
      const [, id = '', entryId = ''] = part;
      const { settings = {}, ...rest } = more.parts?.[id] ?? {};
      parts.push({
        id,
        entryId,
        label: id,
        colour: 'none',
        boardId: null,
        stands: null,
        address: null,
        perReading: false,
        at: null,
        ...rest,
        settings: { ...settings },
      });
    } else if (wire) {
      const [, fromPart = '', fromTerminal = '', toPart = '', toTerminal = '', cable] = wire;
      const from: End = { part: fromPart, terminal: fromTerminal };
      const to: End = { part: toPart, terminal: toTerminal };
      if (cable !== undefined && !cables.has(cable))
        cables.set(cable, {
          id: cable,
          label: cable,
          colour: 'none',
          lengthM: 1,
          areaMm2: 0.5,
          ...more.cables?.[cable],
        });
      wires.push({ id: `wire-${wires.length + 1}`, from, to, cableId: cable ?? null });
    } else if (line !== '') throw new RangeError(`sketchNetlist: cannot read "${line}"`);
  }
  return { parts, wires, cables: [...cables.values()] };
}
