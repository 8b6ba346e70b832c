import { useQueryClient } from '@tanstack/react-query';
import { chooseFolder, hasFolders } from '../../../data/backupFolder.ts';
import { daysSince, noteFolder } from '../../../data/keeping.ts';
import { keepingQuery } from '../../../data/queries.ts';
import { database } from '../../../data/services.ts';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useState } from 'react';
import { useGarden } from '../../../data/gardenContext.ts';
import { useTidy } from './useTidy.ts';
import { useBackup, useKeeping } from '../../../frame/useBackup.ts';
import { Button } from '../../../ui/Button.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { persistenceText } from '../../../words/storageText.ts';

/** How safe the garden is in this browser, and the way to be safer. */
export function KeepingState() {
  const { garden } = useGarden();
  const tidying = useTidy(garden.id);
  const keeping = useKeeping();
  const { save, running, cancel } = useBackup();
  const [nowMs] = useState(() => Date.now());
  const client = useQueryClient();
  const choose = async () => {
    const folder = await chooseFolder();
    if (!folder) return;
    await noteFolder(await database(), garden.id, folder);
    await client.invalidateQueries({ queryKey: keepingQuery(garden.id).queryKey });
  };
  if (!keeping) return null;
  const days = daysSince(keeping.backupAtMs, nowMs);
  return (
    <section aria-label="Backup" className="mt-5 border-t border-rule pt-3">
      <h2>Backup</h2>
      <p className="max-w-[68ch] text-[14.5px]">
        {days === null
          ? 'No backup has been saved from this browser yet.'
          : days === 0
            ? 'The last backup was saved today.'
            : `The last backup is ${days} ${days === 1 ? 'day' : 'days'} old.`}{' '}
        {persistenceText(keeping.persistence)} A backup is one zip with the garden, every reading, event and
        photo; “Open a file” on the first page brings it back, here or on another machine.
      </p>
      {tidying && (
        <p className="text-[14px] text-soft" role="status">
          Older days are being packed, so that they take less room and open at once:{' '}
          <span className="num">
            {formatNumber(tidying.done)} of {formatNumber(tidying.all)}
          </span>
          .
        </p>
      )}
      <div className="mt-2">
        {running !== null ? (
          <Progress label="Writing the backup" done={running} onCancel={cancel} />
        ) : (
          <div className="flex flex-wrap gap-3">
            {keeping.folder && (
              <Button onClick={() => void save(keeping.folder)}>Back up into “{keeping.folder.name}”</Button>
            )}
            <Button onClick={() => void save()}>Save a backup</Button>
            {hasFolders() && (
              <Button look="quiet" onClick={() => void choose()}>
                {keeping.folder ? 'Another folder' : 'Choose a folder for backups'}
              </Button>
            )}
          </div>
        )}
      </div>
    </section>
  );
}
