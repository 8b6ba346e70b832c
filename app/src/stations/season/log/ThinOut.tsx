import { useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { DAY_MS, dayOf } from '@plain-trowel/core/records/series';
import { dayIn, daysStretch } from '@plain-trowel/core/records/stretch';
import { useGarden } from '../../../data/gardenContext.ts';
import { recordsPart, recordsWritten } from '../../../data/records.ts';
import { problemOf } from '../../../data/storageProblem.ts';
import { useBackup } from '../../../frame/useBackup.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Field } from '../../../ui/Field.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { runJob } from '../../../workers/files.ts';
import { storageText } from '../../../words/storageText.ts';

const MEGABYTE = 1e6;
/** What is asked for at first: all but the last year. */
const KEPT_DAYS = 365;

/** Makes room for good: of old days only what tells stays. What would go and what would be left is said before, and a backup stands beside it. */
export function ThinOut({ newestMs, onClose }: { newestMs: number; onClose: () => void }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const client = useQueryClient();
  const backup = useBackup();
  const { timeZone } = garden;
  const [to, setTo] = useState(() => dayIn(newestMs - KEPT_DAYS * DAY_MS, timeZone));
  const [sure, setSure] = useState(false);
  const [job, setJob] = useState<{ readonly done: number; readonly cancel: () => void } | null>(null);
  const span = daysStretch(to, to, timeZone);
  // Days are kept by UTC: the last of them that has ended by then.
  const toMs = dayOf(span?.toMs ?? 0);
  const { data: sum } = useQuery({
    queryKey: [...recordsPart(garden.id, { of: 'use' }), 'thin', toMs],
    queryFn: () => runJob(async (jobs) => jobs.thinningOf(garden.id, toMs)).result,
    enabled: span !== null && job === null,
    gcTime: 0,
  });
  const going = sum ? sum.readings - sum.left : 0;
  const run = async () => {
    if (!span) return;
    await session.flush();
    const what = `all channels up to ${fullDay(toMs - 1, 'UTC')}, thinned out to what tells of each hour`;
    const of = { toMs, what, nowMs: Math.round(session.getSnapshot().nowMs) };
    const work = runJob(async (jobs, telling) =>
      jobs.thinOut(
        garden.id,
        of,
        telling((done: number, all: number) =>
          setJob((before) => before && { ...before, done: done / Math.max(1, all) }),
        ),
      ),
    );
    setJob({ done: 0, cancel: work.cancel });
    const outcome = await work.result.then(
      (removed) => ({ removed, error: null }),
      (error: unknown) => ({ removed: null, error }),
    );
    recordsWritten(client, garden.id, null);
    onClose();
    if (outcome.error !== null)
      showToast({
        tone: 'problem',
        text: `Not all days were thinned out. ${storageText(problemOf(outcome.error))} What was done stands in the log, and the other days are as they were.`,
      });
    else
      showToast({
        tone: 'done',
        text:
          outcome.removed === null
            ? 'Stopped. What was thinned out by then stands in the log, and the other days are as they were.'
            : `${formatNumber(outcome.removed)} readings are gone; of each hour the first, lowest, highest and last are kept.`,
      });
  };
  return (
    <Dialog
      open
      onClose={job ? () => undefined : onClose}
      title="Thin out old days"
      description="Of each hour the first, the lowest, the highest and the last reading stay, as they were recorded; the others are deleted for good, to make room. The chart of a season keeps every peak and every low; short gaps may no longer show in it, and the mean of a day may shift, most where single readings jump. This cannot be undone: a backup saved before holds every reading."
    >
      <Field label="Up to the day, included" className="w-[180px]">
        {(props) => (
          <input
            {...props}
            type="date"
            value={to}
            disabled={job !== null}
            onChange={({ target }) => setTo(target.value)}
          />
        )}
      </Field>
      <p className="mt-3 max-w-[60ch]" role="status">
        {span === null
          ? 'That is no day.'
          : !sum
            ? 'Adding up …'
            : going === 0
              ? `Nothing would go: up to then there ${sum.readings === 0 ? 'are no readings' : 'are only few an hour'}.`
              : `Of ${formatNumber(sum.readings)} readings ${formatNumber(going)} would go and ${formatNumber(sum.left)} stay: ${formatNumber(sum.bytes / MEGABYTE, 2)} MB become ${formatNumber(sum.bytesLeft / MEGABYTE, 2)} MB.`}
      </p>
      {job ? (
        <div className="mt-4">
          <Progress label="Thinning out" done={job.done} onCancel={job.cancel} />
        </div>
      ) : (
        <>
          <Check checked={sure} onChange={setSure} className="mt-3">
            I have a backup of these days, or do not need them.
          </Check>
          <div className="mt-4 flex flex-wrap gap-3">
            <Button look="primary" disabled={!sure || going === 0} onClick={() => void run()}>
              {going > 0 ? `Delete ${formatNumber(going)} readings for good` : 'Delete for good'}
            </Button>
            <Button onClick={() => void backup.save()} disabled={backup.running !== null}>
              Save a backup first
            </Button>
            <Button look="quiet" onClick={onClose}>
              Keep them all
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
