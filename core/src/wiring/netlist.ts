/**
 * A wiring as data: parts from the catalogue with their typed terminals, wires between terminals, cables that bundle wires. Everything
 * else (nets, voltages, findings, the picture, the sheets) is worked out from it.
 */
import { factsSchema } from '../catalogue/schema.ts';
import { MOST } from '../quantity/bounds.ts';
import { z } from '../quantity/schema.ts';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'use small letters, digits and hyphens, at most 40');
const label = z.string().trim().min(1, 'must not be empty').max(60, 'at most 60 characters');

export const COLOUR_TAGS = ['none', 'blue', 'red', 'yellow', 'green', 'white', 'black'] as const;
export type ColourTag = (typeof COLOUR_TAGS)[number];
const colour = z.enum(COLOUR_TAGS);

/** Lists of the garden whose things have a part. */
export const STANDING = ['boards', 'probes', 'waterLines', 'contacts', 'plots'] as const;
export type Standing = (typeof STANDING)[number];

const end = z.strictObject({ part: id, terminal: id });

const part = z.strictObject({
  id,
  entryId: id,
  label,
  colour,
  /** The part id of the board it reports to; null for boards, supplies and what serves them all. */
  boardId: id.nullable(),
  /** What of the garden it is: its board, probe, water line or contact; of a lamp, buzzer or display the plot that it speaks for. */
  stands: z.strictObject({ list: z.enum(STANDING), id }).nullable(),
  /** Its address on the bus; null when none is set. */
  address: z.int().min(1).max(247).nullable(),
  /** Facts that differ from its catalogue entry. */
  settings: factsSchema,
  /** Powered only while it is read; null leaves it to the plan. */
  perReading: z.boolean(),
  /** Where a person put it in the picture; null leaves it to the layout. */
  at: z.strictObject({ x: z.number().min(-1e5).max(1e5), y: z.number().min(-1e5).max(1e5) }).nullable(),
});

const wire = z.strictObject({ id, from: end, to: end, cableId: id.nullable() });

const cable = z.strictObject({
  id,
  label,
  colour,
  /** One way, m; null when it was not measured. */
  lengthM: z.number().min(0).max(1500).nullable(),
  areaMm2: z.number().min(0.01).max(50).nullable(),
});

export const netlistSchema = z
  .strictObject({
    parts: z.array(part).max(MOST.parts),
    wires: z.array(wire).max(MOST.wires),
    cables: z.array(cable).max(MOST.cables),
  })
  .superRefine((netlist, ctx) => {
    const report = (path: PropertyKey[], message: string) => ctx.addIssue({ code: 'custom', path, message });
    for (const list of ['parts', 'wires', 'cables'] as const) {
      const seen = new Set<string>();
      for (const [at, one] of netlist[list].entries()) {
        if (seen.has(one.id)) report([list, at, 'id'], `"${one.id}" stands twice in ${list}`);
        seen.add(one.id);
      }
    }
    const parts = new Set(netlist.parts.map((one) => one.id));
    const cables = new Set(netlist.cables.map((one) => one.id));
    for (const [at, one] of netlist.wires.entries()) {
      for (const side of ['from', 'to'] as const)
        if (!parts.has(one[side].part))
          report(['wires', at, side, 'part'], `names "${one[side].part}", which is not among the parts`);
      if (one.cableId !== null && !cables.has(one.cableId))
        report(['wires', at, 'cableId'], `names "${one.cableId}", which is not among the cables`);
    }
    for (const [at, one] of netlist.parts.entries())
      if (one.boardId !== null && !parts.has(one.boardId))
        report(['parts', at, 'boardId'], `names "${one.boardId}", which is not among the parts`);
  });

export type Netlist = z.infer<typeof netlistSchema>;
export type Part = Netlist['parts'][number];
export type Wire = Netlist['wires'][number];
export type Cable = Netlist['cables'][number];
/** One end of a wire: a terminal of a part. */
export type End = Wire['from'];

export const EMPTY_NETLIST: Netlist = { parts: [], wires: [], cables: [] };

export const endKey = (at: End): string => `${at.part}.${at.terminal}`;
export const isSameEnd = (one: End, other: End): boolean =>
  one.part === other.part && one.terminal === other.terminal;
