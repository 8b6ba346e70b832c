import { Link, useSearchParams } from 'react-router';
import type { SketchProblem } from '@plain-trowel/core/sketch/boardPlan';
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
            <Link
              className="underline underline-offset-4"
              to={`/g/${garden.id}/${one.sheet}${plot === null ? '' : `?plot=${plot}`}`}
            >
              {SHEET_NAMES[one.sheet]}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
