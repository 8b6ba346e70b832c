/** What a person changes of how a table is read. */
import { readDateCell } from './dateText.ts';
import { momentOf } from '../quantity/moment.ts';
import type { Layout, Question, Role, Target, TimeForm } from './layout.ts';

/** Roles that only one column can have. */
const ONLY_ONE: readonly Role['kind'][] = ['time', 'day', 'clock', 'value'];

/** A layout in which a column has another role. What only one can have goes away from the one that had it; a whole time goes without a day and a clock. */
export function withRole(layout: Layout, column: number, role: Role): Layout {
  const gives = (kind: Role['kind']): boolean =>
    (ONLY_ONE.includes(kind) && kind === role.kind) ||
    (role.kind === 'time' && (kind === 'day' || kind === 'clock')) ||
    ((role.kind === 'day' || role.kind === 'clock') && kind === 'time');
  const isSame = (other: Role): boolean =>
    role.kind === 'channel' && other.kind === 'channel' && other.channelId === role.channelId;
  return {
    ...layout,
    columns: layout.columns.map((one, at) => {
      if (at === column) return { ...one, role };
      return gives(one.role.kind) || isSame(one.role) ? { ...one, role: { kind: 'leave-out' } } : one;
    }),
  };
}

/** A layout in which a name of rows means another channel, or none. */
export function withName(layout: Layout, name: string, target: Target | null): Layout {
  const { [name]: _before, ...others } = layout.names;
  return { ...layout, names: target ? { ...others, [name]: target } : others };
}

/** The ways in which all of these cells can be times; none where they are no times. */
export function timeForms(cells: readonly string[]): TimeForm[] {
  if (cells.length === 0) return [];
  const every = (is: (cell: string) => boolean) => cells.every(is);
  const written = (['dmy', 'mdy', 'ymd'] as const).filter((order) =>
    every((cell) => readDateCell(cell)?.orders.includes(order) ?? false),
  );
  const forms: TimeForm[] = [...written];
  if (
    every((cell) => /^\d{9,19}(?:[.,]\d+)?$/.test(cell) && momentOf(Number(cell.replace(',', '.'))) !== null)
  )
    forms.push('since-1970');
  if (every((cell) => /^\d{5}(?:[.,]\d+)?$/.test(cell))) forms.push('sheet-days');
  return forms;
}

/** The questions that a change has not answered: whoever gives a column or a name another meaning has answered those about it. */
export const unanswered = (
  questions: readonly Question[],
  changed:
    | { readonly column: number; readonly name?: string | null }
    | 'order'
    | 'decimal'
    | 'which-time'
    | 'day-only',
): Question[] =>
  questions.filter((question) => {
    if (typeof changed === 'string') return question.kind !== changed;
    if (question.kind === 'which-time') return !question.columns.includes(changed.column);
    return !(
      'column' in question &&
      question.column === changed.column &&
      question.name === (changed.name ?? null)
    );
  });
