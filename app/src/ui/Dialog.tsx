import { clsx } from 'clsx';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A sheet laid over the page for one short task; Escape and a click outside put it away. */
export function Dialog({
  open,
  onClose,
  title,
  description,
  wide = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  description: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-veil" />
        <Radix.Content
          className={clsx(
            'fixed top-1/2 left-1/2 z-30 max-h-[92dvh] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-[2px] border-2 border-ink bg-paper p-6',
            wide ? 'w-[min(900px,94vw)]' : 'w-[min(640px,94vw)]',
          )}
        >
          <Radix.Title asChild>
            <h2 className="text-[21px]">{title}</h2>
          </Radix.Title>
          <Radix.Description className="mt-1 mb-4 text-soft">{description}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
