import { clsx } from 'clsx';
import { useState } from 'react';
import { Link } from 'react-router';
import { ALERT_KINDS } from '@plain-trowel/core/control/alerts';
import type { Need } from '@plain-trowel/core/telling/needs';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { remedyOf } from './remedyOf.ts';
import { WateredForm } from './WateredForm.tsx';

/** One thing that needs a person: what, why, and the button for it. */
export function NeedRow({ need, isFirst }: { need: Need; isFirst: boolean }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const [isWatering, setWatering] = useState(false);
  const remedy = remedyOf(garden, need);
  const isPressing = !need.isSeen && !need.isBeginning;
  const isAlert = isPressing && (ALERT_KINDS as readonly string[]).includes(need.kind);
  return (
    <li className="border-b border-rule py-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Mark isPressing={isPressing} />
        <div className="min-w-0 flex-1 basis-[24ch]">
          <p className={clsx('leading-snug', isPressing ? 'text-[17px] font-semibold' : 'text-soft')}>
            {need.subject}: {need.says}
          </p>
          <p className="text-[14px] text-soft">
            {need.why}
            {need.isSeen && '; seen'}
            {need.isBeginning && '; not told yet'}
          </p>
        </div>
        <span className="flex flex-wrap gap-3 max-sm:w-full">
          {need.kind === 'dry' && !need.isPast && need.plotId !== null && (
            <Button
              look={isFirst && isPressing ? 'primary' : 'plain'}
              className="justify-center max-sm:min-h-[48px] max-sm:flex-1"
              onClick={() => setWatering(!isWatering)}
            >
              I watered it<span className="sr-only">: {need.subject}</span>
            </Button>
          )}
          <Link
            to={remedy.to}
            className={clsx(
              'press inline-flex min-h-[38px] items-center justify-center border px-3.5 font-semibold max-sm:min-h-[48px] max-sm:flex-1',
              isFirst && isPressing && (need.kind !== 'dry' || need.isPast)
                ? 'border-handle bg-handle text-paper'
                : 'border-ink',
            )}
          >
            {remedy.name}
            <span className="sr-only">: {need.subject}</span>
          </Link>
          {isAlert && (
            <Button look="quiet" onClick={() => session.acknowledgeAlert(need.key)}>
              Seen<span className="sr-only">: {need.subject}</span>
            </Button>
          )}
        </span>
      </div>
      {isWatering && need.plotId !== null && (
        <WateredForm plotId={need.plotId} onDone={() => setWatering(false)} />
      )}
    </li>
  );
}

/** A cross where a hand is needed, a clock where it can wait. */
const Mark = ({ isPressing }: { isPressing: boolean }) => (
  <svg
    width="24"
    height="24"
    viewBox="0 0 24 24"
    aria-hidden
    className="shrink-0"
    fill="none"
    strokeWidth="2.2"
  >
    {isPressing ? (
      <path d="M4 4l16 16M20 4L4 20" className="stroke-handle" />
    ) : (
      <>
        <circle cx="12" cy="12" r="9" className="stroke-ink" />
        <path d="M12 7v5.5l4 2" className="stroke-ink" />
      </>
    )}
  </svg>
);
