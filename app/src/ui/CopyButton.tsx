import { useState } from 'react';
import { Button } from './Button.tsx';

/** Copies a text, and says "Copied" of this very text only: once it has changed, it can be copied again. */
export function CopyButton({
  text,
  label,
  look = 'plain',
  onCopied,
}: {
  text: string;
  label: string;
  look?: 'primary' | 'plain';
  onCopied?: () => void;
}) {
  const [tried, setTried] = useState<{ readonly text: string; readonly isDone: boolean } | null>(null);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setTried({ text, isDone: true });
      onCopied?.();
    } catch {
      // Not every page may write there; the text can be selected and copied by hand.
      setTried({ text, isDone: false });
    }
  };
  const said = tried?.text === text ? tried : null;
  return (
    <>
      <Button look={look} onClick={() => void copy()}>
        {said?.isDone ? 'Copied' : label}
      </Button>
      {said?.isDone === false && (
        <span className="text-[13.5px]">
          The browser does not allow it here: select the text and copy it.
        </span>
      )}
    </>
  );
}
