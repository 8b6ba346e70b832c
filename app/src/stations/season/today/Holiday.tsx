import { useState } from 'react';
import { skippedUntil } from '@plain-trowel/core/control/host/answers';
import type { SkipChoice } from '@plain-trowel/core/control/host/skips';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { whenText } from '@plain-trowel/core/telling/plotToday';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { SkipSelect, useSkip } from '../../rules/limits/program/SkipPanel.tsx';

/** Lines that a person has told to water nothing for now, and until when each. */
export function SkippedNow() {
  const { garden } = useGarden();
  const live = useLive();
  const skipped = garden.waterLines.flatMap(({ id, name }) => {
    const untilMs = skippedUntil(live.answers[id], live.nowMs);
    return untilMs !== null ? [`${name} until ${whenText(untilMs, live.nowMs, garden.timeZone)}`] : [];
  });
  return skipped.length === 0 ? null : (
    <p role="status" className="mt-1 border-l-[3px] border-rill pl-3">
      <b className="font-semibold">Watering is skipped:</b> {skipped.join('; ')}.
    </p>
  );
}

/** Every line of the garden at once: skipped for a while, or watering by itself again. */
export function Holiday() {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  const [isOpen, setOpen] = useState(false);
  const [choice, setChoice] = useState<SkipChoice>('week');
  const skip = useSkip(choice);
  const orders = live.source?.orders;
  const automatic = garden.waterLines.filter((one) => one.automatic && one.program.kind !== 'alert-only');
  const heard = automatic.filter(({ id }) => live.answers[id] !== undefined);
  const unheard = automatic.filter(({ id }) => live.answers[id] === undefined);
  const skipped = heard.filter(({ id }) => skippedUntil(live.answers[id], live.nowMs) !== null);
  if (!orders || heard.length === 0) return null;
  const order = (lines: readonly WaterLine[], forS: number) => {
    for (const { id } of lines) orders.order({ lineId: id, kind: 'skip', forS });
    session.refresh();
    setOpen(false);
  };
  return (
    <section aria-label="Holiday" className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      {skipped.length > 0 && <Button onClick={() => order(skipped, 0)}>Water by itself again</Button>}
      <Button look="quiet" onClick={() => setOpen(true)}>
        Skip all watering …
      </Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        title="Skip all watering"
        description="For rain, frost, or a house with nothing in it to water. Every line rests; each board keeps the time itself and begins again by itself; one with a program in C++ also after any restart. Alerts go on as ever, and say when a plot gets too dry."
      >
        <p className="max-w-[58ch] text-soft">
          Some makers call this a holiday and mean the other thing: that everything goes on while they are
          away. For that nothing needs to be pressed here.
        </p>
        {unheard.length > 0 && (
          <p role="alert" className="mt-2 max-w-[58ch] border-l-[3px] border-handle pl-3">
            Not heard now, so not skipped: {unheard.map(({ name }) => name).join(', ')}.
          </p>
        )}
        <div className="mt-3 flex flex-wrap items-end gap-4">
          <SkipSelect value={choice} onChange={setChoice} />
          <Button look="primary" onClick={() => order(heard, skip.forS)}>
            Skip {heard.length === 1 ? heard[0]?.name : `${heard.length} lines`} until {skip.untilText}
          </Button>
        </div>
      </Dialog>
    </section>
  );
}
