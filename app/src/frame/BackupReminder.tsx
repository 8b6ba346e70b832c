import { useState } from 'react';
import { backupIsDue, daysSince } from '../data/keeping.ts';
import { Button } from '../ui/Button.tsx';
import { Progress } from '../ui/Progress.tsx';
import { useBackup, useKeeping } from './useBackup.ts';

/** On every sheet, once real readings are here and no backup, or none for two weeks, has left the browser. */
export function BackupReminder() {
  const keeping = useKeeping();
  const { save, running, cancel } = useBackup();
  const [hidden, setHidden] = useState(false);
  const [nowMs] = useState(() => Date.now());
  if (hidden || !keeping || !backupIsDue(keeping, nowMs)) return null;
  const days = daysSince(keeping.backupAtMs, nowMs);
  return (
    <div
      role="note"
      className="no-print flex flex-wrap items-center gap-3 border-b border-rule bg-paper-2 px-5 py-1.5 text-[14px]"
    >
      <span className="min-w-[240px] flex-1">
        {days === null
          ? 'Readings of your probes are kept only in this browser; no backup has been saved yet.'
          : `The last backup is ${days} days old; newer readings are kept only in this browser.`}
      </span>
      {running !== null ? (
        <Progress label="Writing the backup" done={running} onCancel={cancel} />
      ) : (
        <>
          <Button onClick={() => void save()}>Save a backup</Button>
          <Button look="quiet" onClick={() => setHidden(true)}>
            Not now
          </Button>
        </>
      )}
    </div>
  );
}
