import { clsx } from 'clsx';
import { useState, type ReactNode } from 'react';

/** A box to tick. It shows what was ticked at once, while the change is still being saved; a change that is refused (false) does not show. */
export function Check({
  checked,
  onChange,
  children,
  className,
}: {
  checked: boolean;
  onChange: (checked: boolean) => unknown;
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
          const to = event.target.checked;
          if (onChange(to) !== false) setPressed({ from: checked, to });
        }}
      />
      {children}
    </label>
  );
}
