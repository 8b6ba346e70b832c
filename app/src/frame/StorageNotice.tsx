import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import { useGarden } from '../data/gardenContext.ts';
import { pendingSaves } from '../data/pendingSaves.ts';
import { reportStorage, storageHealth } from '../data/storageHealth.ts';
import { tryStorage } from '../data/tryStorage.ts';
import { useLive, useLiveTools } from '../links/liveContext.ts';
import { Button } from '../ui/Button.tsx';
import { showToast } from '../ui/toasts.ts';
import { storageText, waitingText } from '../words/storageText.ts';
import { keptPage } from './keptPage.ts';
import { sheetPath } from './stations.ts';
import { usePlotScope } from './usePlotScope.ts';
import { useBackup } from './useBackup.ts';

const useHealth = () => useSyncExternalStore(storageHealth.subscribe, storageHealth.getSnapshot);

/** Whether a change is on its way to the disk. */
export const useIsSaving = () => useSyncExternalStore(pendingSaves.subscribe, pendingSaves.isSaving);

/** Asks before the page is left while something is not on disk. */
function useLeaveWarning(isWaiting: boolean) {
  useEffect(() => {
    if (!isWaiting) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isWaiting]);
}

/** What is wrong with the browser's storage, on every sheet: what is so, what waits, and what can be done. */
export function StorageNotice() {
  const client = useQueryClient();
  const { garden, putBack } = useGarden();
  const plotId = usePlotScope();
  const { session } = useLiveTools();
  const clockIsWrong = useLive((live) => live.clockIsWrong);
  const { problem, waiting } = useHealth();
  const { save, running } = useBackup();
  const isSaving = useIsSaving();
  useLeaveWarning(isSaving || (problem !== null && waiting.readings + waiting.events > 0));
  if (problem === null)
    return clockIsWrong ? (
      <Notice>
        The clock of this machine or of the log shows a date outside 2000 to 2100. Nothing is recorded until
        it is right.
      </Notice>
    ) : null;
  /** Writes what waits, and reads again what could not be read; the notice goes when storage answers. */
  const tryAgain = async () => {
    await session.flush();
    const failed = await tryStorage();
    if (failed === null) void client.invalidateQueries();
    const stillWaits = session.recorderState().problem;
    reportStorage({ problem: failed ?? stillWaits });
    if (failed ?? stillWaits)
      showToast({
        tone: 'problem',
        text: 'It still does not work. What waits is kept as long as this page stays open.',
      });
  };
  const putAllBack = async () => {
    if (!(await putBack())) return;
    await session.flush();
    showToast({
      tone: 'done',
      text: 'The garden is in the browser’s storage again. Readings from before are gone unless you have a backup.',
    });
  };
  return (
    <Notice>
      <p>
        {storageText(problem)} {waitingText(waiting)}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-2">
        <Button onClick={() => void save()} disabled={running !== null}>
          Save what this page holds as a file
        </Button>
        {problem !== 'gone' && problem !== 'newer' && (
          <Button onClick={() => void tryAgain()}>Try again</Button>
        )}
        {problem === 'full' && (
          <Link
            to={`${sheetPath(garden.id, 'season', 'log', plotId)}${plotId === null ? '?' : '&'}room=wanted`}
            className="press flex items-center px-2 underline underline-offset-4"
          >
            Have fewer old readings
          </Link>
        )}
        {problem === 'gone' && <Button onClick={() => void putAllBack()}>Store the garden again</Button>}
        {(problem === 'newer' || problem === 'closed') && (
          <Button onClick={() => location.reload()}>Load the page again</Button>
        )}
      </div>
    </Notice>
  );
}

function Notice({ children }: { children: React.ReactNode }) {
  return (
    <div
      role="alert"
      className="no-print border-b-2 border-handle bg-paper px-5 py-2.5 text-[15px] font-medium"
    >
      {children}
    </div>
  );
}

/** What this browser cannot do, and that a newer page waits; a person puts it away. */
export function BrowserNotes() {
  const [hidden, setHidden] = useState(false);
  const kept = useSyncExternalStore(keptPage.subscribe, keptPage.getSnapshot);
  const notes = [
    kept === 'newer'
      ? 'A newer version of this page has come. It is used once every tab and window of the page has been closed; nothing changes until then.'
      : null,
    'locks' in navigator
      ? null
      : 'This browser cannot tell whether the garden is open in another tab. Keep it open in one tab only, or two tabs would write into one log.',
    typeof BroadcastChannel === 'undefined'
      ? 'Changes made in another tab are not seen here until the page is loaded again.'
      : null,
  ].filter((note) => note !== null);
  if (hidden || notes.length === 0) return null;
  return (
    <div
      role="note"
      className="no-print flex flex-wrap items-center gap-3 border-b border-rule bg-paper-2 px-5 py-1.5 text-[14px]"
    >
      <span className="min-w-[240px] flex-1">{notes.join(' ')}</span>
      <Button look="quiet" onClick={() => setHidden(true)}>
        Put away
      </Button>
    </div>
  );
}
