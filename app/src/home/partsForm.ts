import { z } from '@plain-trowel/core/quantity/schema';
import { BOARD_TRAITS } from '@plain-trowel/core/catalogue/boardTraits';
import type { Parts } from '@plain-trowel/core/garden/edits/plots';
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

/** What the form holds, as typed; the transform gives numbers. */
export const partsSchema = z.object({
  plotName: short('the plot a name, such as Chilli crate'),
  plant: z.string().trim().max(400, 'At most 400 characters.'),
  probeLabel: short('the probe a label, such as C2'),
  probeKind: z.enum(PROBE_KINDS),
  colour: z.enum(COLOUR_TAGS),
  depthCm: numberText('A depth in cm', 0, 300),
  pin: z.string().trim().max(60, 'At most 60 characters.'),
  streamName: short('the name your board prints, or "value" for a bare number'),
  boardChoice: z.string(),
  boardName: z.string().trim().max(60, 'At most 60 characters.'),
  boardTraits: z.string().max(400),
  adcBits: numberText('Bits', 8, 24).refine(Number.isInteger, 'Bits are a whole number.'),
  supplyV: numberText('Volts', 1, 30),
  hasPump: z.boolean(),
  flowMlPerS: numberText('Millilitres a second', 0.1, 1000),
});

export type PartsText = z.input<typeof partsSchema>;
export type PartsRead = z.output<typeof partsSchema>;

const [first] = BOARD_TRAITS;
if (!first) throw new Error('the catalogue has no board');
const FIRST_TRAITS = first;

export const emptyParts: PartsText = {
  plotName: '',
  plant: '',
  probeLabel: '',
  probeKind: 'capacitive stick',
  colour: 'none',
  depthCm: '7',
  pin: '',
  streamName: 'value',
  boardChoice: NEW_BOARD,
  boardName: 'My board',
  boardTraits: FIRST_TRAITS.traits,
  adcBits: String(FIRST_TRAITS.adcBits),
  supplyV: String(FIRST_TRAITS.supplyV),
  hasPump: false,
  flowMlPerS: '10',
};

export function partsOf(read: PartsRead): Parts {
  const { boardChoice, boardName, boardTraits, adcBits, supplyV, hasPump, flowMlPerS, ...rest } = read;
  return {
    ...rest,
    board:
      boardChoice === NEW_BOARD
        ? { name: boardName || 'My board', traits: boardTraits, adcBits, supplyV }
        : { id: boardChoice },
    pump: hasPump ? { flowMlPerS } : null,
  };
}
