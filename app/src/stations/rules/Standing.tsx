import type { Contradiction } from '@plain-trowel/core/control/programs/contradiction';
import { Link, useSearchParams } from 'react-router';
import { useGarden } from '../../data/gardenContext.ts';
import { sheetPath } from '../../frame/stations.ts';
import { contradictionText } from '../../words/contradictionText.ts';
import { goTo } from './goTo.ts';

/** Settings that stand against each other: the first with the way to its field, the rest folded away. */
export function Standing({ lead, all }: { readonly lead: string; readonly all: readonly Contradiction[] }) {
  const [first, ...rest] = all;
  if (!first) return null;
  return (
    <div role="alert" className="mt-2 max-w-[68ch] border-l-[3px] border-handle pl-3">
      <p>
        <b className="font-semibold">{lead}</b> <One of={first} />
      </p>
      {rest.length > 0 && (
        <details>
          <summary className="press py-1 text-[14px]">
            {rest.length === 1 ? 'And one more' : `And ${rest.length} more`}
          </summary>
          <ul className="flex flex-col gap-1">
            {rest.map((one) => (
              <li key={one.kind + one.at}>
                <One of={one} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

function One({ of }: { of: Contradiction }) {
  const { garden } = useGarden();
  const [search] = useSearchParams();
  const plotId = search.get('plot');
  const toLimits = new URLSearchParams(search);
  toLimits.set('view', 'limits');
  return (
    <>
      {contradictionText(of)}{' '}
      {of.at === 'limits' ? (
        <Link className="underline underline-offset-4" to={`?${toLimits.toString()}`}>
          Go to the limits
        </Link>
      ) : of.kind === 'no-probe' ? (
        <Link className="underline underline-offset-4" to={sheetPath(garden.id, 'bench', 'readout', plotId)}>
          To the Readout sheet
        </Link>
      ) : (
        <button
          type="button"
          className="press underline underline-offset-4"
          onClick={({ currentTarget }) => goTo(of.at, currentTarget)}
        >
          Go to it
        </button>
      )}
    </>
  );
}
