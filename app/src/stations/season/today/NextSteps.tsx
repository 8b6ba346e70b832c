import { clsx } from 'clsx';
import { Link } from 'react-router';
import { nextStage, stagesOf, type StageId } from '@plain-trowel/core/telling/building';
import { useGarden } from '../../../data/gardenContext.ts';
import { readLoaded } from '../../../data/loadedPrograms.ts';
import { sheetPath, type SheetId, type StationId } from '../../../frame/stations.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';

const WHERE: Readonly<Record<StageId, readonly [StationId, SheetId, string]>> = {
  plan: ['plan', 'parts', 'Plan'],
  read: ['bench', 'readout', 'Read'],
  calibrate: ['bench', 'calibrate', 'Calibrate'],
  dose: ['bench', 'dose', 'Dose'],
  limits: ['rules', 'limits', 'Limits'],
  sketch: ['rules', 'sketch', 'Sketch'],
  watch: ['bench', 'readout', 'Watch'],
};

/** Where one is in the building of the garden; gone once it is built. */
export function NextSteps({ isWatched }: { isWatched: boolean }) {
  const { garden } = useGarden();
  const { stored } = useLiveTools();
  const { present, silent, source } = useLive();
  const stages = stagesOf(garden, {
    hasRead: (id) => present.has(id) || silent.has(id) || stored.has(id),
    hasProgram: (id) =>
      source?.hands != null || source?.boardAt(id) != null || readLoaded(garden.id, id) !== null,
    isWatched,
  });
  const next = nextStage(stages);
  if (next === null) return null;
  const [station, sheet] = WHERE[next.id];
  return (
    <section aria-label="Building it" className="border-b border-rule py-3">
      <ol className="flex flex-wrap gap-x-4 gap-y-1 text-[13.5px]">
        {stages.map(({ id, isDone }) => (
          <li
            key={id}
            className={clsx(
              'border-b-2 pb-0.5',
              id === next.id
                ? 'border-handle font-semibold'
                : isDone
                  ? 'border-ink'
                  : 'border-transparent text-soft',
            )}
          >
            {WHERE[id][2]}
            <span className="sr-only">{isDone ? ', done' : id === next.id ? ', next' : ', to do'}</span>
          </li>
        ))}
      </ol>
      <p className="mt-1.5">
        Next in building it:{' '}
        <Link
          className="font-semibold underline underline-offset-4"
          to={sheetPath(garden.id, station, sheet, next.plotId)}
        >
          {next.says}
        </Link>
      </p>
    </section>
  );
}
