/** Earlier versions of the garden document, brought up step by step. Each step knows only its own version and the next. */
import { EMPTY_PLAN } from '../plan/schema.ts';
import { EMPTY_NETLIST } from '../wiring/netlist.ts';

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export const NO_PLACEMENT = { where: '', between: '', mapNote: '' } as const;

/** From version 1: no plan, no wiring, no own catalogue entries yet; probes without a placement. */
function fromVersion1(garden: Loose): Loose {
  const probes = Array.isArray(garden.probes)
    ? garden.probes.map((probe: unknown) => (isObject(probe) ? { ...probe, placement: NO_PLACEMENT } : probe))
    : garden.probes;
  return { ...garden, version: 2, probes, plan: EMPTY_PLAN, wiring: EMPTY_NETLIST, catalogue: [] };
}

const STEPS: readonly ((garden: Loose) => Loose)[] = [fromVersion1];

/** The document in the newest version's shape. It is not checked here: the schema does that. */
export function migrate(parsed: object, version: number): unknown {
  return STEPS.slice(version - 1).reduce<Loose>((garden, step) => step(garden), parsed as Loose);
}
