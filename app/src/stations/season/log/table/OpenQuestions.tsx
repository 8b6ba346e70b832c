import type { ReactNode } from 'react';
import { unanswered } from '@plain-trowel/core/tables/edit';
import type { Question } from '@plain-trowel/core/tables/layout';
import { PRINTED } from '@plain-trowel/core/tables/units';
import { Button } from '../../../../ui/Button.tsx';
import { dateMeans } from '../../../../words/tableText.ts';
import { channelLabel, giveRole, giveTarget, type Editing } from './editing.ts';

/** What the table leaves open, each with its answers; nothing is taken in before all are given. */
export function OpenQuestions({ of }: { of: Editing }) {
  if (of.questions.length === 0) return null;
  return (
    <ul aria-label="Open questions" className="mb-4 grid gap-3 border-l-4 border-handle pl-3">
      {of.questions.map((question) => (
        <li key={keyOf(question)}>
          <QuestionRow question={question} of={of} />
        </li>
      ))}
    </ul>
  );
}

const keyOf = (question: Question): string =>
  'column' in question ? `${question.kind} ${question.column} ${question.name ?? ''}` : question.kind;

function QuestionRow({ question, of }: { question: Question; of: Editing }) {
  const { layout, setLayout, questions, setQuestions } = of;
  const answer = (label: string, run: () => void) => (
    <Button key={label} onClick={run}>
      {label}
    </Button>
  );
  const ask = (text: string, answers: readonly ReactNode[]) => (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <span className="max-w-[60ch]">{text}</span>
      {answers}
    </div>
  );
  switch (question.kind) {
    case 'order':
      return ask(
        `Which day is ${question.example}?`,
        question.orders.map((order) =>
          answer(dateMeans(question.example, order), () => {
            setLayout({ ...layout, time: order });
            setQuestions(unanswered(questions, 'order'));
          }),
        ),
      );
    case 'decimal': {
      const isComma = question.example.includes(',');
      const decide = (isDecimal: boolean) => () => {
        setLayout({ ...layout, decimal: isDecimal === isComma ? ',' : '.' });
        setQuestions(unanswered(questions, 'decimal'));
      };
      return ask(`What does ${question.example} mean?`, [
        answer(`${question.example.replace(/[.,]/g, '')}: the mark parts thousands`, decide(false)),
        answer(`${question.example.replace(',', '.')}: the mark stands before decimals`, decide(true)),
      ]);
    }
    case 'which-time':
      return ask(
        'Several columns hold times. Which is it that the readings were taken at?',
        question.columns.map((column) =>
          answer(layout.columns[column]?.name || `Column ${column + 1}`, () =>
            giveRole(of, column, { kind: 'time' }),
          ),
        ),
      );
    case 'day-only':
      return ask('The table has days and no times of day.', [
        answer('Take each as read at noon', () => setQuestions(unanswered(questions, 'day-only'))),
      ]);
    default:
      return <PlaceQuestion question={question} of={of} />;
  }
}

type AboutPlace = Extract<Question, { readonly column: number }>;

/** A question about a column, or about a name in the rows. */
function PlaceQuestion({ question, of }: { question: AboutPlace; of: Editing }) {
  const column = of.layout.columns[question.column]?.name;
  const called = question.name ?? (column ? `the column ${column}` : `column ${question.column + 1}`);
  const labelOf = (id: string) => {
    const found = of.channels.find((one) => one.id === id);
    return found ? channelLabel(found) : id;
  };
  const meantOf = (id: string): string => of.channels.find((one) => one.id === id)?.meant?.unit ?? '';
  const leave = (
    <Button look="quiet" onClick={() => giveTarget(of, question, null)}>
      Leave it out
    </Button>
  );
  const keep = (label: string, channelId: string, unit: string | null) => (
    <Button key={`${channelId} ${label}`} onClick={() => giveTarget(of, question, { channelId, unit })}>
      {label}
    </Button>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      {question.kind === 'which-channel' && (
        <>
          <span>What is {called}?</span>
          {question.ids.map((id) => keep(labelOf(id), id, question.unit))}
        </>
      )}
      {question.kind === 'counts' && (
        <>
          <span className="max-w-[56ch]">
            {called} has no number above 100, and {labelOf(question.channelId)} is recorded in raw counts.
            Percent cannot be turned back into counts.
          </span>
          {keep('They are raw counts', question.channelId, 'raw counts')}
        </>
      )}
      {question.kind === 'corrected' && (
        <>
          <span className="max-w-[56ch]">
            {called} could hold what the board prints for {labelOf(question.channelId)}, or what the garden’s
            correction makes of it.
          </span>
          {keep(`It is in ${meantOf(question.channelId)}`, question.channelId, meantOf(question.channelId))}
          {keep('It is what the board prints', question.channelId, PRINTED)}
        </>
      )}
      {question.kind === 'degrees' && (
        <>
          <span>In which degrees is {called}? Some are too many for soil in °C.</span>
          {keep('°F', question.channelId, '°F')}
          {keep('°C', question.channelId, '°C')}
        </>
      )}
      {leave}
    </div>
  );
}
