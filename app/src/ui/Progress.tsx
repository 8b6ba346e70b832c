import { formatNumber } from '@plain-trowel/core/quantity/format';
import { Button } from './Button.tsx';

/** A long job: how far it is, and a way out. */
export function Progress({ label, done, onCancel }: { label: string; done: number; onCancel: () => void }) {
  return (
    <div className="flex w-full max-w-[520px] items-center gap-4">
      <div className="flex-1">
        <p className="text-[14px]">
          {label}, <span className="num">{formatNumber(done * 100)} % done</span>
        </p>
        <div
          role="progressbar"
          aria-label={label}
          aria-valuenow={Math.round(done * 100)}
          aria-valuemin={0}
          aria-valuemax={100}
          className="mt-1 h-2 border border-ink"
        >
          <div className="h-full bg-ink" style={{ width: `${done * 100}%` }} />
        </div>
      </div>
      <Button onClick={onCancel}>Cancel</Button>
    </div>
  );
}
