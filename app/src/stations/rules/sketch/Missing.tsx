import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { setChannelPin } from '@plain-trowel/core/garden/edits/bench';
import { byId } from '@plain-trowel/core/quantity/byId';
import { pinOfName, pinPairOfName } from '@plain-trowel/core/sketch/pins';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import type { SketchProblem } from '@plain-trowel/core/sketch/plan';
import { useGarden } from '../../../data/gardenContext.ts';
import { problemText, SHEET_NAMES } from '../../../words/sketchText.ts';

/** What a program cannot be written without, each with the sheet that sets it. */
export function Missing({
  board,
  problems,
}: {
  readonly board: string;
  readonly problems: readonly SketchProblem[];
}) {
  const { garden } = useGarden();
  const [search] = useSearchParams();
  const plot = search.get('plot');
  return (
    <section aria-label="What is missing" className="mt-4">
      <p className="max-w-[68ch] text-[17px]">
        No program is written for {board} yet: it would be a half one, and a half one waters wrongly.{' '}
        {problems.length === 1 ? 'This is missing.' : 'These are missing.'}
      </p>
      <ul className="mt-2 flex max-w-[76ch] flex-col">
        {problems.map((one) => (
          <li key={one.kind + one.what} className="border-b border-rule py-2">
            {problemText(one)}{' '}
            {one.channelId !== undefined ? (
              <Pins channelId={one.channelId} what={one.what} count={one.pins ?? 1} />
            ) : (
              <Link
                className="underline underline-offset-4"
                to={`/g/${garden.id}/${one.sheet}${plot === null ? '' : `?plot=${plot}`}`}
              >
                {SHEET_NAMES[one.sheet]}
              </Link>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Which pins a channel is wired to: written here, where they are missing. */
function Pins({
  channelId,
  what,
  count,
}: {
  readonly channelId: string;
  readonly what: string;
  readonly count: 1 | 2;
}) {
  const { garden, commit } = useGarden();
  const [text, setText] = useState(byId(garden.channels, channelId)?.pin ?? '');
  const [isWrong, setWrong] = useState(false);
  const isPins = count === 2 ? pinPairOfName(text) !== null : pinOfName(text) !== null;
  const keep = () => {
    setWrong(!isPins);
    if (isPins)
      void commit(`the pins of ${what}`, (now) => ({ garden: setChannelPin(now, channelId, text) }));
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-x-3 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Field
        label={count === 2 ? `Pins of ${what}: the one that starts it, the echo` : `Pin of ${what}`}
        hint="As printed on the board, such as P34, or IN0 for an analog input."
        error={
          isWrong ? (count === 2 ? 'Two pins, such as P26 P27.' : 'One pin, such as P34 or IN0.') : undefined
        }
        className="w-[320px] max-w-full"
      >
        {(props) => (
          <input
            {...props}
            className="field w-full"
            value={text}
            placeholder={count === 2 ? 'P26 P27' : 'P34'}
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <Button type="submit">Keep</Button>
    </form>
  );
}
