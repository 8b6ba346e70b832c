import { useSearchParams } from 'react-router';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { spokenProgram } from '../../../../words/programText.ts';
import { goTo } from '../../goTo.ts';
import { partsOf } from '../../../../words/spoken.ts';

/** The program as a sentence; what can be changed in it is underlined with dots, and pressing it leads to its field. */
export function ProgramSentence({ parts, line }: { parts: PlotParts; line: WaterLine }) {
  const { garden } = useGarden();
  const [search, setSearch] = useSearchParams();
  const press = (field: string, from: HTMLElement) => {
    if (field !== 'limits') {
      goTo(field, from);
      return;
    }
    const next = new URLSearchParams(search);
    next.set('view', 'limits');
    setSearch(next);
  };
  return (
    <p className="max-w-[68ch] text-[17px]">
      {partsOf(spokenProgram(garden, line, parts.plot, parts.fit)).map(({ text, field }) =>
        field === null ? (
          text
        ) : (
          <button
            key={field + text}
            type="button"
            title="Change this"
            className="inline cursor-pointer text-left underline decoration-dotted decoration-1 underline-offset-4 hover:text-handle"
            onClick={({ currentTarget }) => press(field, currentTarget)}
          >
            {text}
          </button>
        ),
      )}
    </p>
  );
}
