import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A sheet laid over the page for one short task; Escape and a click outside put it away. */
export function Dialog({
  open,
  onClose,
  title,
  description,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  description: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-veil" />
        <Radix.Content className="fixed top-1/2 left-1/2 z-30 max-h-[92dvh] w-[min(640px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-[2px] border-2 border-ink bg-paper p-6">
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
