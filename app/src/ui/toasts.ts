/** Short messages at the foot of the page, with the one thing that can be done about them. */
export type Toast = {
  readonly id: number;
  readonly text: string;
  readonly tone: 'done' | 'problem';
  readonly action?: { readonly label: string; readonly run: () => void };
};

let toasts: readonly Toast[] = [];
let nextId = 1;
const listeners = new Set<() => void>();

const publish = (next: readonly Toast[]) => {
  toasts = next;
  for (const listener of listeners) listener();
};

export function showToast(toast: Omit<Toast, 'id'>): void {
  publish([...toasts.slice(-2), { ...toast, id: nextId++ }]);
}

export const dismissToast = (id: number): void => publish(toasts.filter((toast) => toast.id !== id));

export const toastStore = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  getSnapshot: () => toasts,
};
