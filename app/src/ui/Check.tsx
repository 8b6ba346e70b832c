import { clsx } from 'clsx';
import { useState, type ReactNode } from 'react';

/** A box to tick. It shows what was ticked at once, while the change is still being saved. */
export function Check({
  checked,
  onChange,
  children,
  className,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
  className?: string;
}) {
  const [pressed, setPressed] = useState<{ from: boolean; to: boolean } | null>(null);
  const shown = pressed?.from === checked ? pressed.to : checked;
  return (
    <label className={clsx('press flex items-center gap-2.5', className)}>
      <input
        type="checkbox"
        className="size-4.5 accent-handle"
        checked={shown}
        onChange={(event) => {
          setPressed({ from: checked, to: event.target.checked });
          onChange(event.target.checked);
        }}
      />
      {children}
    </label>
  );
}
