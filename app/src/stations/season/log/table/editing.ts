import type { NamedChannel } from '@plain-trowel/core/tables/columnNames';
import { unanswered, withName, withRole } from '@plain-trowel/core/tables/edit';
import type { Layout, Question, Role, Target } from '@plain-trowel/core/tables/layout';

/** How a table is read, while a person looks at it. */
export type Editing = {
  readonly layout: Layout;
  readonly setLayout: (layout: Layout) => void;
  readonly questions: readonly Question[];
  readonly setQuestions: (questions: readonly Question[]) => void;
  readonly channels: readonly NamedChannel[];
};

/** Gives a column another role; what was asked about it is answered. */
export function giveRole(
  { layout, setLayout, questions, setQuestions }: Editing,
  column: number,
  role: Role,
): void {
  setLayout(withRole(layout, column, role));
  setQuestions(unanswered(questions, { column }));
}

/** Gives a name of rows another meaning, or none. */
export function giveName(
  { layout, setLayout, questions, setQuestions }: Editing,
  column: number,
  name: string,
  target: Target | null,
): void {
  setLayout(withName(layout, name, target));
  setQuestions(unanswered(questions, { column, name }));
}

/** A column, or a name in the rows of one. */
export type Place = { readonly column: number; readonly name: string | null };

/** What a place means: a channel of the garden, or nothing. */
export const giveTarget = (of: Editing, { column, name }: Place, target: Target | null): void => {
  if (name !== null) giveName(of, column, name, target);
  else giveRole(of, column, target ? { kind: 'channel', ...target } : { kind: 'leave-out' });
};

/** What a channel is called in a list: "Herb trough, H1 soil temperature". */
export const channelLabel = ({ plot, board, names }: NamedChannel): string =>
  [plot || board, names[0] ?? ''].filter((part) => part !== '').join(', ');
