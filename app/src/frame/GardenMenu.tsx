import { DropdownMenu } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { lazy, Suspense, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { download, fileNameOf } from '../data/download.ts';
import { useGarden } from '../data/gardenContext.ts';
import { daysSince } from '../data/keeping.ts';
import { useOpenGardenFile } from '../home/useOpenGardenFile.ts';
import { useBackup, useKeeping } from './useBackup.ts';
import { showKeys } from './keysDialogState.ts';
import { useSheetTone } from './sheetTone.ts';
import { FileInput } from '../ui/FileInput.tsx';

const UnitsDialog = lazy(() => import('../home/UnitsDialog.tsx'));
const RenameDialog = lazy(() => import('../home/RenameDialog.tsx'));

const ITEM =
  'flex min-h-[40px] items-center justify-between gap-6 px-4 text-[15px] outline-none data-disabled:text-soft data-highlighted:bg-ink data-highlighted:text-paper';

/** The garden's name; behind it, everything that concerns the garden as a whole. */
export function GardenMenu() {
  const { garden, history, undo, redo } = useGarden();
  const navigate = useNavigate();
  const [tone, setTone] = useSheetTone();
  const [nowMs] = useState(() => Date.now());
  const [renaming, setRenaming] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const fileInput = useRef<HTMLInputElement>(null);
  const openFile = useOpenGardenFile();
  const lastDone = history.past.at(-1)?.label;
  const lastUndone = history.future.at(-1)?.label;
  const { save, running } = useBackup();
  const days = daysSince(useKeeping()?.backupAtMs ?? null, nowMs);
  const backupAge = days === null ? 'none yet' : days === 0 ? 'today' : `${days} d old`;
  const plots = `${garden.plots.length} ${garden.plots.length === 1 ? 'plot' : 'plots'}`;
  return (
    <div className="border-rule md:border-r">
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="press flex h-full w-full items-center justify-between gap-2 px-5 py-3 text-left">
          <span className="min-w-0">
            <b className="block truncate text-[17px] leading-tight font-semibold">{garden.name}</b>
            <span className="block truncate text-[12.5px] text-soft">
              {running !== null
                ? `saving a backup, ${formatNumber(running * 100)} %`
                : garden.note
                  ? `${garden.note}, ${plots}`
                  : plots}
            </span>
          </span>
          <ChevronDown aria-label="Garden menu" size={18} className="shrink-0" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-20 min-w-[260px] border-2 border-ink bg-paper py-1"
          >
            <DropdownMenu.Item
              className={ITEM}
              disabled={lastDone === undefined}
              onSelect={() => void undo()}
            >
              <span>{lastDone === undefined ? 'Nothing to undo' : `Undo: ${lastDone}`}</span>
              <kbd className="font-mono text-xs">Ctrl Z</kbd>
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              disabled={lastUndone === undefined}
              onSelect={() => void redo()}
            >
              <span>{lastUndone === undefined ? 'Nothing to redo' : `Redo: ${lastUndone}`}</span>
              <kbd className="font-mono text-xs">Ctrl Y</kbd>
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            <DropdownMenu.Item className={ITEM} onSelect={() => setRenaming(true)}>
              Rename the garden
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setChoosing(true)}>
              <span>Units</span>
              <span className="text-[13px]">{`°${garden.units.temperature}, ${garden.units.volume}, ${garden.units.length}`}</span>
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() =>
                download(
                  `${fileNameOf(garden.name)}.garden.json`,
                  writeGardenFile(garden),
                  'application/json',
                )
              }
            >
              Export garden.json
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} disabled={running !== null} onSelect={() => void save()}>
              <span>Save a backup</span>
              <span className="text-[13px]">{backupAge}</span>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => fileInput.current?.click()}>
              Open a backup or a garden.json
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            <DropdownMenu.Item className={ITEM} onSelect={() => setTone(tone === 'night' ? 'day' : 'night')}>
              {tone === 'night' ? 'Day sheet' : 'Night sheet'}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={showKeys}>
              <span>Keys of this sheet</span>
              <kbd className="font-mono text-xs">?</kbd>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate('/')}>
              All gardens
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <FileInput
        ref={fileInput}
        label="Garden file"
        accept=".json,.zip,application/json,application/zip"
        onFile={(file) => openFile(file)}
      />
      {choosing && (
        <Suspense>
          <UnitsDialog onClose={() => setChoosing(false)} />
        </Suspense>
      )}
      {renaming && (
        <Suspense>
          <RenameDialog onClose={() => setRenaming(false)} />
        </Suspense>
      )}
    </div>
  );
}
