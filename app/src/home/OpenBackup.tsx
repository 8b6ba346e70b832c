import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { ClashTable } from '../stations/season/log/ClashTable.tsx';
import { Button } from '../ui/Button.tsx';
import { Check } from '../ui/Check.tsx';
import { Progress } from '../ui/Progress.tsx';
import { Toasts } from '../ui/Toasts.tsx';
import { Notice } from './Notice.tsx';
import { mergeBackup } from './openFiles.ts';
import { setOpening, useOpening, type Opening } from './openingState.ts';

/** A backup being opened: how far it is, and what it would change where its garden is already here. */
export default function OpenBackup() {
  const opening = useOpening();
  if (opening.kind === 'reading')
    return (
      <Notice
        title={`Opening ${opening.fileName}`}
        text="The backup is read first; nothing is written before all of it is sound."
      >
        <Progress label="Reading the backup" done={opening.done} onCancel={() => opening.cancel?.()} />
      </Notice>
    );
  if (opening.kind === 'compare') return <Compare opening={opening} />;
  return <Notice title="No backup is open here" text="Choose it on the first page." />;
}

function Compare({ opening }: { opening: Extract<Opening, { kind: 'compare' }> }) {
  const { backup, preview, fileName, isSame, isDamaged } = opening;
  const client = useQueryClient();
  const navigate = useNavigate();
  const [takeDocument, setTakeDocument] = useState(isDamaged);
  const [busy, setBusy] = useState(false);
  const { clashes, inside } = preview;
  const keep = (onClash: 'keep' | 'beside') => {
    setBusy(true);
    void mergeBackup(
      backup,
      { onClash, takeDocument, fileName, freshEvents: preview.freshEvents },
      { client, goTo: async (path) => navigate(path) },
    );
  };
  const giveUp = () => {
    setOpening({ kind: 'none' });
    void navigate('/');
  };
  const nothingNew = preview.fresh === 0 && preview.freshEvents.length === 0 && clashes + inside === 0;
  return (
    <Notice
      title={`${backup.garden.name} is already here`}
      text="Nothing has been imported yet. What is recorded here is never changed; all of it is one step that can be undone."
    >
      <ul className="w-full border-t border-ink">
        <Row what="Readings" fresh={preview.fresh} same={preview.same} />
        <Row what="Events" fresh={preview.freshEvents.length} same={preview.sameEvents} />
      </ul>
      {clashes > 0 && (
        <ClashTable
          title={`${formatNumber(clashes)} readings of the backup are recorded here with another value`}
          columns={['Recorded here', 'In the backup']}
          clashes={preview.firstClashes}
          total={clashes}
          garden={backup.garden}
        />
      )}
      {isDamaged ? (
        <p>The garden here does not open. It will be as in the backup; the damaged one is kept aside.</p>
      ) : isSame ? (
        <p>The garden itself (plots, calibrations, limits, wiring) is the same in both.</p>
      ) : (
        <Check checked={takeDocument} onChange={setTakeDocument}>
          Make the garden itself (plots, calibrations, limits, wiring) as it is in the backup
        </Check>
      )}
      <div className="flex flex-wrap gap-3">
        <Button
          look="primary"
          disabled={busy || (nothingNew && (isSame || !takeDocument))}
          onClick={() => keep('keep')}
        >
          {clashes + inside > 0 ? 'Keep mine, import only what is new' : 'Import what is new'}
        </Button>
        {clashes + inside > 0 && (
          <Button disabled={busy} onClick={() => keep('beside')}>
            Keep both, theirs marked
          </Button>
        )}
        <Button look="quiet" onClick={giveUp}>
          Cancel
        </Button>
      </div>
      {nothingNew && isSame && <p className="text-soft">0 new: everything in this backup is here already.</p>}
      <Toasts />
    </Notice>
  );
}

function Row({ what, fresh, same }: { what: string; fresh: number; same: number }) {
  return (
    <li className="border-b border-rule py-1.5">
      <b>{what}:</b> <span className="num">{formatNumber(fresh)}</span> new,{' '}
      <span className="num">{formatNumber(same)}</span> here already
    </li>
  );
}
