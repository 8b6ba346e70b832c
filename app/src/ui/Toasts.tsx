import { Toast as Radix } from 'radix-ui';
import { useSyncExternalStore } from 'react';
import { dismissToast, toastStore } from './toasts.ts';

/** Where the short messages appear: under the plots, so that they cover neither sheet nor slip. A problem stays until it is put away. */
export function Toasts() {
  const toasts = useSyncExternalStore(toastStore.subscribe, toastStore.getSnapshot);
  return (
    <Radix.Provider swipeDirection="right" label="Messages">
      {toasts.map((toast) => (
        <Radix.Root
          key={toast.id}
          type={toast.tone === 'problem' ? 'foreground' : 'background'}
          duration={toast.tone === 'problem' ? 60_000 : 8000}
          onOpenChange={(open) => !open && dismissToast(toast.id)}
          className="flex flex-wrap items-center gap-x-4 gap-y-2 rounded-[2px] border-2 border-ink bg-ink px-4 py-3 text-paper"
        >
          <Radix.Description className="min-w-[150px] flex-1 text-[14.5px]">{toast.text}</Radix.Description>
          {toast.action && (
            <Radix.Action
              altText={toast.action.label}
              onClick={toast.action.run}
              className="press min-h-[34px] rounded-[2px] border border-paper px-3 font-semibold"
            >
              {toast.action.label}
            </Radix.Action>
          )}
          <Radix.Close className="press min-h-[34px] px-1 text-[14px] underline underline-offset-4">
            Close
          </Radix.Close>
        </Radix.Root>
      ))}
      <Radix.Viewport className="no-print fixed right-4 bottom-4 z-40 flex w-[min(460px,calc(100vw-2rem))] list-none flex-col gap-2 outline-none md:right-auto md:left-2 md:w-[202px]" />
    </Radix.Provider>
  );
}
