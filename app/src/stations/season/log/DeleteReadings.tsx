import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { byId } from '@plain-trowel/core/quantity/byId';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { dayIn, daysStretch } from '@plain-trowel/core/records/stretch';
import { useGarden } from '../../../data/gardenContext.ts';
import { recordsPart } from '../../../data/records.ts';
import { countReadings } from '../../../data/recordsImport.ts';
import { database } from '../../../data/services.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Field } from '../../../ui/Field.tsx';
import { showToast } from '../../../ui/toasts.ts';
import type { StretchTools } from './useStretch.ts';

/** Deletes readings of whole days on purpose: how many is said before, and one press of undo puts them back. */
export function DeleteReadings({
  stretch,
  channelId,
  onClose,
}: {
  stretch: StretchTools;
  channelId: string;
  onClose: () => void;
}) {
  const { garden, takeOut, undo } = useGarden();
  const { session } = useLiveTools();
  const { timeZone } = garden;
  const [whose, setWhose] = useState<'one' | 'all'>('one');
  const [from, setFrom] = useState(() => dayIn(stretch.fromMs, timeZone));
  const [to, setTo] = useState(() => dayIn(stretch.toMs - 1, timeZone));
  const span = daysStretch(from, to, timeZone);
  const channel = byId(garden.channels, channelId);
  const name = channel ? channelName(garden, channel) : '';
  const channelIds = whose === 'one' ? [channelId] : garden.channels.map(({ id }) => id);
  const [fromMs, toMs] = [span?.fromMs ?? 0, (span?.toMs ?? 0) - 1];
  const { data: count } = useQuery({
    queryKey: [...recordsPart(garden.id, { of: 'use' }), channelIds, fromMs, toMs],
    queryFn: async () => countReadings(await database(), garden.id, { channelIds, fromMs, toMs }),
    enabled: span !== null,
    gcTime: 0,
  });
  const days = from === to ? 'that day' : 'those days';
  const remove = async () => {
    onClose();
    await session.flush();
    const who = whose === 'one' ? name : 'all channels';
    const when = `${fullDay(fromMs, timeZone)}${from === to ? '' : ` to ${fullDay(toMs, timeZone)}`}`;
    const nowMs = Math.round(session.getSnapshot().nowMs);
    const what = `${who}, ${when}`;
    const removed = await takeOut(`delete readings of ${who}`, { channelIds, fromMs, toMs, what, nowMs });
    if (removed === null) return;
    showToast({
      tone: 'done',
      text: `${formatNumber(removed)} ${removed === 1 ? 'reading' : 'readings'} of ${what} ${removed === 1 ? 'was' : 'were'} deleted.`,
      action: { label: 'Undo', run: () => void undo() },
    });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Delete readings"
      description="Readings cannot be made again. Undo puts them back, until fifty further steps have been made, and until then they still take their room; what was watered and written down stays."
    >
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          legend="Of"
          showLegend
          options={[
            { value: 'one', label: name },
            { value: 'all', label: 'all channels' },
          ]}
          value={whose}
          onChange={setWhose}
        />
        <Field label="Delete from the day" className="w-[160px]">
          {(props) => (
            <input {...props} type="date" value={from} onChange={({ target }) => setFrom(target.value)} />
          )}
        </Field>
        <Field label="Delete to the day, included" className="w-[180px]">
          {(props) => (
            <input {...props} type="date" value={to} onChange={({ target }) => setTo(target.value)} />
          )}
        </Field>
      </div>
      <p className="mt-3" role="status">
        {span === null
          ? 'One of the two is no day.'
          : count === undefined
            ? 'Counting …'
            : count === 0
              ? `No reading lies in ${days}.`
              : `${formatNumber(count)} ${count === 1 ? 'reading lies' : 'readings lie'} in ${days}.`}
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="primary" disabled={span === null || !count} onClick={() => void remove()}>
          {count ? `Delete ${formatNumber(count)} ${count === 1 ? 'reading' : 'readings'}` : 'Delete'}
        </Button>
        <Button look="quiet" onClick={onClose}>
          Keep them
        </Button>
      </div>
    </Dialog>
  );
}
