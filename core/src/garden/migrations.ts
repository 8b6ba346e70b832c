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

export const NO_TEST = { touch: null, air: null, water: null } as const;

const eachOf = (list: unknown, change: (one: Loose) => Loose): unknown =>
  Array.isArray(list) ? list.map((one: unknown) => (isObject(one) ? change(one) : one)) : list;

/** References did not know whether they had settled. */
const unwatched = (reference: unknown): unknown =>
  isObject(reference) ? { ...reference, settling: null } : reference;

/** From version 2: every channel was a probe's moisture; probes had no first test, no proof of their label, no bus. */
function fromVersion2(garden: Loose): Loose {
  const probes = eachOf(garden.probes, (probe) => ({
    ...probe,
    firstTest: NO_TEST,
    labelProvedAt: null,
    warmUp: null,
    bus: null,
  }));
  const channels = eachOf(garden.channels, (channel) => ({
    ...channel,
    quantity: 'moisture',
    label: '',
    correction: { kind: 'none' },
    pegs: isObject(channel.pegs)
      ? { dry: unwatched(channel.pegs.dry), wet: unwatched(channel.pegs.wet) }
      : channel.pegs,
  }));
  const calibrations = eachOf(garden.calibrations, (calibration) => ({
    ...calibration,
    dry: unwatched(calibration.dry),
    wet: unwatched(calibration.wet),
  }));
  return { ...garden, version: 3, probes, channels, calibrations, registerMaps: [] };
}

const STEPS: readonly ((garden: Loose) => Loose)[] = [fromVersion1, fromVersion2];

/** The document in the newest version's shape. It is not checked here: the schema does that. */
export function migrate(parsed: object, version: number): unknown {
  return STEPS.slice(version - 1).reduce<Loose>((garden, step) => step(garden), parsed as Loose);
}
