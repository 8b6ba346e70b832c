import { Link } from 'react-router';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../data/gardenContext.ts';
import { sheetPath } from '../../frame/stations.ts';

/** Where settings of a line stand in its board's program. @param fields by their words the names that they have there */
export function InTheCode({
  line,
  fields,
}: {
  readonly line: WaterLine;
  readonly fields: Readonly<Record<string, string>>;
}) {
  const { garden } = useGarden();
  return (
    <p className="mt-2 text-[14.5px] text-soft">
      In the board’s program:{' '}
      {Object.entries(fields).map(([words, field], at) => (
        <span key={field}>
          {at > 0 && ', '}
          <Link
            className="press underline underline-offset-4"
            to={`${sheetPath(garden.id, 'rules', 'sketch', line.plotId)}&field=${field}&line=${line.id}`}
          >
            {words}
          </Link>
        </span>
      ))}
    </p>
  );
}
