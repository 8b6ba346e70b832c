import { useKeyList, useKeys } from '../ui/keys.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { hideKeys, showKeys, useKeysOpen } from './keysDialogState.ts';

const EVERYWHERE = [
  { key: 'Ctrl Z', does: 'Undo the last change to the garden' },
  { key: 'Ctrl Y', does: 'Redo it' },
  { key: 'Tab, Enter', does: 'Go to a number and lay its working on the slip' },
];

/** The list behind "?": what the open sheet answers to. */
export function KeysDialog() {
  const open = useKeysOpen();
  useKeys([{ key: '?', does: 'Show this list', run: showKeys }]);
  const keys = [...useKeyList(), ...EVERYWHERE];
  return (
    <Dialog
      open={open}
      onClose={hideKeys}
      title="Keys of this sheet"
      description="Single keys, for when a hand is wet."
    >
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {keys.map((one) => (
          <div key={one.key} className="contents">
            <dt>
              <kbd className="rounded-[2px] border border-ink px-2 py-0.5 font-mono text-[13px]">
                {one.key.length === 1 ? one.key.toUpperCase() : one.key}
              </kbd>
            </dt>
            <dd>{one.does}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5 border-t border-rule pt-3 text-[13.5px] text-soft">
        Plain Trowel is free software.{' '}
        <a href="/THIRD-PARTY.txt" target="_blank" rel="noreferrer" className="underline underline-offset-4">
          Licences of what it is made with
        </a>
      </p>
    </Dialog>
  );
}
