import { useQueryClient } from '@tanstack/react-query';
import type { GardenFileIssue } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { LoadedGarden } from '../data/gardenStore.ts';
import { importGarden } from '../data/importGarden.ts';
import { gardenQuery, gardensQuery } from '../data/queries.ts';
import { database } from '../data/services.ts';
import { problemOf } from '../data/storageProblem.ts';
import { Button } from '../ui/Button.tsx';
import { showToast } from '../ui/toasts.ts';
import { Toasts } from '../ui/Toasts.tsx';
import { gardenFileText } from '../words/issueText.ts';
import { storageText } from '../words/storageText.ts';
import { fullDay, shortTime } from '@plain-trowel/core/quantity/timeText';
import { Notice } from './Notice.tsx';
import { MendView } from './mend/MendView.tsx';

/** The fields stand one by one below; everything else is a sentence of its own. */
const whyText = (issue: GardenFileIssue): string =>
  issue.kind === 'field' ? 'Some of its fields do not fit.' : gardenFileText(issue);

/** A garden in storage that does not open: the last good document, the faults one by one, and the file. */
export function DamagedGarden({
  gardenId,
  damaged,
}: {
  gardenId: string;
  damaged: Extract<LoadedGarden, { kind: 'damaged' }>;
}) {
  const client = useQueryClient();
  const { lastGood, issue, doc } = damaged;
  const keep = async (garden: Garden): Promise<boolean> => {
    try {
      await importGarden(await database(), garden);
    } catch (error) {
      showToast({ tone: 'problem', text: `It was not saved. ${storageText(problemOf(error))}` });
      return false;
    }
    await client.invalidateQueries({ queryKey: gardensQuery().queryKey });
    await client.invalidateQueries({ queryKey: gardenQuery(gardenId).queryKey });
    return true;
  };
  return (
    <Notice
      title="This garden does not open"
      text={`${whyText(issue)} Its readings and events are kept apart from it and were not touched.`}
    >
      {lastGood && (
        <section className="w-full border-t border-rule pt-3">
          <h2>Open the last version that is good</h2>
          <p className="mb-2 max-w-[62ch]">
            {lastGood.garden.name}, {lastGood.garden.plots.length}{' '}
            {lastGood.garden.plots.length === 1 ? 'plot' : 'plots'}
            {lastGood.atMs > 0 &&
              `, saved on ${fullDay(lastGood.atMs, lastGood.garden.timeZone)} at ${shortTime(lastGood.atMs, lastGood.garden.timeZone)}`}
            . The damaged one is kept aside (Season, Log).
          </p>
          <Button look="primary" onClick={() => void keep(lastGood.garden)}>
            Open that version
          </Button>
        </section>
      )}
      <section className="w-full border-t border-rule pt-3">
        <MendView
          doc={doc}
          fileName={`${gardenId}.damaged.json`}
          onMended={(garden) => keep({ ...garden, id: gardenId })}
        />
      </section>
      <Toasts />
    </Notice>
  );
}
