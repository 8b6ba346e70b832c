import { clsx } from 'clsx';
import { Suspense, useEffect } from 'react';
import { NavigationType, Outlet, useLocation, useNavigationType } from 'react-router';
import { useGarden } from '../data/gardenContext.ts';
import { BandPatterns } from '../ruler/patterns.tsx';
import { OnItsWay } from '../ui/OnItsWay.tsx';
import { Toasts } from '../ui/Toasts.tsx';
import { KeysDialog } from './KeysDialog.tsx';
import { LabelRack } from './LabelRack.tsx';
import { clearSlip, useSlip } from './slip.ts';
import { BackupReminder } from './BackupReminder.tsx';
import { StationRail } from './StationRail.tsx';
import { BrowserNotes, StorageNotice, useIsSaving } from './StorageNotice.tsx';
import { WorkingSlip } from './WorkingSlip.tsx';
import { speakIn } from '../words/unitText.ts';

/** Undo and redo by key, wherever one is; a text being typed keeps its own undo. */
function useUndoKeys() {
  const { undo, redo } = useGarden();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA)$/.test(event.target.tagName) &&
        !/^(radio|checkbox)$/.test((event.target as HTMLInputElement).type);
      if (!(event.ctrlKey || event.metaKey) || event.altKey || typing) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      void (key === 'y' || event.shiftKey ? redo() : undo());
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [undo, redo]);
}

/** What every sheet stands in: rail above, labels at the left, the sheet, the working slip at the right. */
export function Frame() {
  const { pathname, search } = useLocation();
  const { worked } = useSlip();
  const { garden } = useGarden();
  // Sentences follow the units of the garden that is open; in other units everything is written again.
  speakIn(garden.units);
  useUndoKeys();
  useEffect(clearSlip, [pathname, search]);
  const how = useNavigationType();
  // A sheet begins at its head; going back leaves it where it was.
  useEffect(() => {
    if (how !== NavigationType.Pop) window.scrollTo(0, 0);
  }, [pathname, how]);
  return (
    <div className="flex min-h-dvh flex-col">
      <SkipLink />
      <BandPatterns />
      <StationRail />
      <StorageNotice />
      <BackupReminder />
      <BrowserNotes />
      <div
        key={Object.values(garden.units).join(' ')}
        className={clsx(
          'grid flex-1 grid-cols-[minmax(0,1fr)] md:grid-cols-[216px_minmax(0,1fr)]',
          worked ? 'xl:grid-cols-[216px_minmax(0,1fr)_296px]' : 'xl:grid-cols-[216px_minmax(0,1fr)_52px]',
        )}
      >
        <LabelRack />
        <Sheet />
        <WorkingSlip />
      </div>
      <KeysDialog />
      <Toasts />
    </div>
  );
}

/** First in the order of the keys: past rail and labels to the sheet. */
function SkipLink() {
  return (
    <a
      href="#sheet"
      onClick={(event) => {
        event.preventDefault();
        document.getElementById('sheet')?.focus();
      }}
      className="no-print sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-30 focus:bg-paper focus:px-3 focus:py-2"
    >
      Skip to the sheet
    </a>
  );
}

/** The sheet of the address; it knows when what was changed on it is on disk. */
function Sheet() {
  const isSaving = useIsSaving();
  return (
    <main
      id="sheet"
      tabIndex={-1}
      data-saving={isSaving}
      className="min-w-0 outline-none px-4 pt-5 pb-10 md:px-7"
    >
      <Suspense fallback={<OnItsWay text="Laying out the sheet …" />}>
        <Outlet />
      </Suspense>
    </main>
  );
}
