/** Which entry of the catalogue a kind of probe is, and which kind an entry is: the garden keeps short words, the catalogue whole traits. */
import type { Catalogue } from '../../catalogue/catalogue.ts';
import type { Entry } from '../../catalogue/schema.ts';
import { PROBE_KINDS, type ProbeKind } from '../../quantity/probeKind.ts';

/** The usual entry of each kind. */
const ENTRIES: Readonly<Record<ProbeKind, string>> = {
  'capacitive stick': 'probe-capacitive',
  'resistive fork': 'probe-fork',
  'home-made electrodes': 'probe-electrodes',
  'analog volumetric probe': 'probe-volumetric',
  'digital capacitive probe': 'probe-digital-capacitive',
  'steel-rod bus probe': 'probe-bus-rods',
  '4–20 mA soil probe': 'probe-loop',
  'fork with comparator': 'probe-comparator',
  tensiometer: 'probe-tensiometer',
  'air-humidity probe': 'probe-humidity',
  thermistor: 'thermo-ntc',
  'digital thermometer': 'thermo-one-wire',
};

/** Further entries of the same kinds. */
const ALSO: Readonly<Record<string, ProbeKind>> = {
  'probe-electrodes-bare': 'home-made electrodes',
  'probe-bus-seven': 'steel-rod bus probe',
  'thermo-ntc-bare': 'thermistor',
};

/** The entry that stands for a kind of probe; null where the catalogue has none. */
export const entryOfKind = (catalogue: Catalogue, kind: ProbeKind): string | null =>
  catalogue.has(ENTRIES[kind]) ? ENTRIES[kind] : null;

/** The kind of probe that an entry is; null for what measures no soil or is an own entry of another sort. */
export const kindOfEntry = (entry: Entry): ProbeKind | null =>
  ALSO[entry.id] ??
  PROBE_KINDS.find((kind) => ENTRIES[kind] === entry.id) ??
  PROBE_KINDS.find((kind) => entry.name.startsWith(kind)) ??
  null;
