import { MOST } from '@plain-trowel/core/quantity/bounds';
import { z } from '@plain-trowel/core/quantity/schema';
import { BOARD_TRAITS } from '@plain-trowel/core/catalogue/boardTraits';
import { PLOT_KINDS } from '@plain-trowel/core/garden/document/schema';
import { BARE_NUMBER, type PlotRow } from '@plain-trowel/core/garden/edits/alike';
import type { Parts } from '@plain-trowel/core/garden/edits/plots';
import { CM_PER_INCH, type Units } from '@plain-trowel/core/quantity/units';
import { COLOUR_TAGS } from '@plain-trowel/core/wiring/netlist';
import { PROBE_KINDS } from '@plain-trowel/core/quantity/probeKind';

export const NEW_BOARD = 'new';

const numberText = (what: string, least: number, most: number) =>
  z
    .string()
    .trim()
    .transform((text) => Number(text.replace(',', '.')))
    .refine(
      (value) => Number.isFinite(value) && value >= least && value <= most,
      `${what} from ${least} to ${most}.`,
    );

const short = (what: string) => z.string().trim().min(1, `Give ${what}.`).max(60, 'At most 60 characters.');

/** Empty: not said. */
const plotKind = z.enum(['', ...PLOT_KINDS]);
const alike = numberText('How many alike', 1, MOST.plots).refine(Number.isInteger, 'A whole number.');

/** Probe, board and pump, as typed; what is typed of them counts only where they are there already. */
const probeShape = {
  hasProbe: z.boolean(),
  probeLabel: z.string().trim().max(60, 'At most 60 characters.'),
  probeKind: z.enum(PROBE_KINDS),
  colour: z.enum(COLOUR_TAGS),
  /** As typed, in the unit beside it. */
  depthCm: numberText('A depth', 0, 300),
  depthUnit: z.enum(['cm', 'in']),
  pin: z.string().trim().max(60, 'At most 60 characters.'),
  streamName: z.string().trim().max(60, 'At most 60 characters.'),
  boardChoice: z.string(),
  boardName: z.string().trim().max(60, 'At most 60 characters.'),
  boardTraits: z.string().max(400),
  adcBits: numberText('Bits', 8, 24).refine(Number.isInteger, 'Bits are a whole number.'),
  supplyV: numberText('Volts', 1, 30),
  hasPump: z.boolean(),
  flowMlPerS: numberText('Millilitres a second', 0.1, 1000),
};

type Named = { readonly hasProbe: boolean; readonly probeLabel: string; readonly streamName: string };
const needsNames = (
  read: Named,
  ctx: { addIssue: (issue: { code: 'custom'; path: string[]; message: string }) => void },
) => {
  const ask = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
  if (read.hasProbe && read.probeLabel === '') ask('probeLabel', 'Give the probe a label, such as C2.');
  if (read.hasProbe && read.streamName === '')
    ask('streamName', `Give the name your board prints, or "${BARE_NUMBER}" for a bare number.`);
};

const row = z.object({ name: short('the plot a name, such as Chilli crate'), kind: plotKind, alike });

/** A garden of its own: names first, parts if they are there. */
export const startSchema = z
  .object({
    gardenName: z.string().trim().max(60, 'At most 60 characters.'),
    rows: z.array(row).min(1),
    ...probeShape,
  })
  .superRefine(needsNames);

/** One plot, as the form holds it; the transform gives numbers. */
export const partsSchema = z
  .object({
    plotName: short('the plot a name, such as Chilli crate'),
    plant: z.string().trim().max(400, 'At most 400 characters.'),
    plotKind,
    alike,
    ...probeShape,
  })
  .superRefine(needsNames);

export type StartText = z.input<typeof startSchema>;
export type StartRead = z.output<typeof startSchema>;
export type PartsText = z.input<typeof partsSchema>;
export type PartsRead = z.output<typeof partsSchema>;
type ProbeRead = Omit<PartsRead, 'plotName' | 'plant' | 'plotKind' | 'alike'>;

const [first] = BOARD_TRAITS;
if (!first) throw new Error('the catalogue has no board');
const FIRST_TRAITS = first;

const emptyProbe = {
  hasProbe: true,
  probeLabel: '',
  probeKind: 'capacitive stick',
  colour: 'none',
  depthCm: '7',
  depthUnit: 'cm',
  pin: '',
  streamName: BARE_NUMBER,
  boardChoice: NEW_BOARD,
  boardName: 'My board',
  boardTraits: FIRST_TRAITS.traits,
  adcBits: String(FIRST_TRAITS.adcBits),
  supplyV: String(FIRST_TRAITS.supplyV),
  hasPump: false,
  flowMlPerS: '10',
} as const;

export const emptyParts: PartsText = { plotName: '', plant: '', plotKind: '', alike: '1', ...emptyProbe };

export const EMPTY_ROW: StartText['rows'][number] = { name: '', kind: '', alike: '1' };
export const emptyStart: StartText = {
  gardenName: 'My garden',
  rows: [EMPTY_ROW],
  ...emptyProbe,
  hasProbe: false,
};

const probeParts = (read: ProbeRead): Omit<Parts, 'plotName' | 'plant' | 'plotKind'> => {
  const { probeLabel, probeKind, colour, pin, streamName, hasPump, flowMlPerS } = read;
  const depthCm = read.depthUnit === 'in' ? read.depthCm * CM_PER_INCH : read.depthCm;
  const { boardChoice, boardName, boardTraits, adcBits, supplyV } = read;
  return {
    probeLabel,
    probeKind,
    colour,
    depthCm,
    pin,
    streamName,
    board:
      boardChoice === NEW_BOARD
        ? { name: boardName || 'My board', traits: boardTraits, adcBits, supplyV }
        : { id: boardChoice },
    pump: hasPump ? { flowMlPerS } : null,
  };
};

const kindOf = (kind: PartsRead['plotKind']) => (kind === '' ? null : kind);

export const partsOf = (read: PartsRead): Parts => ({
  plotName: read.plotName,
  plant: read.plant,
  plotKind: kindOf(read.plotKind),
  ...probeParts(read),
});

/** The plots of a form, and what each of them gets; null where board and probe are not chosen yet. */
export const plotsOf = (
  read: PartsRead | StartRead,
): { readonly rows: PlotRow[]; readonly parts: ReturnType<typeof probeParts> | null } => ({
  rows:
    'rows' in read
      ? read.rows.map((one) => ({ name: one.name, plant: '', kind: kindOf(one.kind), count: one.alike }))
      : [{ name: read.plotName, plant: read.plant, kind: kindOf(read.plotKind), count: read.alike }],
  parts: read.hasProbe ? probeParts(read) : null,
});

/** A depth as a form of a garden shows it. */
export const depthTyped = (
  cm: number,
  { length }: Units,
): { readonly depthCm: string; readonly depthUnit: Units['length'] } => ({
  depthCm: String(length === 'in' ? Number((cm / CM_PER_INCH).toFixed(1)) : cm),
  depthUnit: length,
});
