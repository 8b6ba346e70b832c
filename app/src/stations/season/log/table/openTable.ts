import type { Guess } from '@plain-trowel/core/tables/layout';
import type { FileForm } from '@plain-trowel/core/tables/otherForms';

/** A file that is looked at before it is taken in. */
export type OpenTable = {
  readonly file: File;
  /** What it was before it was written as a table. */
  readonly form: FileForm;
  readonly encoding: string;
  readonly guess: Guess;
  /** The beginning of the text, in whole lines. */
  readonly front: string;
};
