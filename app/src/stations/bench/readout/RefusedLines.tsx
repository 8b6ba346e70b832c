import { Fragment } from 'react';
import { pickNumber } from '@plain-trowel/core/garden/edits/bench';
import { byId } from '@plain-trowel/core/quantity/byId';
import {
  nameOfPicked,
  numbersIn,
  readPicked,
  type NumberInLine,
} from '@plain-trowel/core/signal/pickedNumber';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { notUnderstoodText } from '../../../words/issueText.ts';

/** Lines that nothing could be read from, each with its reason; their numbers can be pressed: "this one is the reading". */
export function RefusedLines() {
  const { garden, commit } = useGarden();
  const live = useLive();
  // What has been pointed at since is read now.
  const lines = live.badLines.filter(
    ({ boardId, text }) =>
      readPicked(text.trim(), byId(garden.boards, boardId)?.reads.picked ?? []).length === 0,
  );
  if (lines.length === 0) return null;
  const pick = (boardId: string, number: NumberInLine) => {
    const name = nameOfPicked(number);
    void commit(
      `${name} in a line`,
      (before) => ({ garden: pickNumber(before, boardId, { before: number.before, name }) }),
      `The number behind “${number.before.replaceAll('#', '…').trim() || 'the beginning'}” is read from now on.`,
    );
  };
  return (
    <table className="mt-1 text-[14px]">
      <caption className="pb-1 text-left text-soft">
        Nothing is read from these lines. Press the number that is the reading, if one is.
      </caption>
      <thead>
        <tr>
          <th>Line</th>
          <th>Why not</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ boardId, text, reason }, at) => (
          <tr key={`${at}${text}`}>
            <td className="font-mono text-[13px] wrap-anywhere">
              <Marked text={text} isText={reason !== 'garbage'} onPick={(number) => pick(boardId, number)} />
            </td>
            <td>{notUnderstoodText(reason)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A line with each of its numbers as a button. */
function Marked({
  text,
  isText,
  onPick,
}: {
  text: string;
  isText: boolean;
  onPick: (number: NumberInLine) => void;
}) {
  const numbers = isText ? numbersIn(text.trim()) : [];
  const line = isText ? text.trim() : text;
  return (
    <>
      {numbers.map((number, at) => (
        <Fragment key={number.from}>
          {line.slice(numbers[at - 1]?.to ?? 0, number.from)}
          <button
            type="button"
            className="press border border-ink bg-paper-2 px-1 font-semibold"
            aria-label={`${number.text} is the reading`}
            onClick={() => onPick(number)}
          >
            {number.text}
          </button>
        </Fragment>
      ))}
      {line.slice(numbers.at(-1)?.to ?? 0)}
    </>
  );
}
