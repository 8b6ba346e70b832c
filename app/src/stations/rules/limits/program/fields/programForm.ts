import type { ProgramKind, SavedProgram } from '@plain-trowel/core/control/programs/programs';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';

/** What the form of a kind is given. */
export type FieldsOf<Kind extends ProgramKind> = {
  readonly line: WaterLine;
  readonly program: Extract<SavedProgram, { kind: Kind }>;
};

export const FIELD_ROW = 'mt-3 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4';
