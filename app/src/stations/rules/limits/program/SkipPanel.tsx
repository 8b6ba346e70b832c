import { useState } from 'react';
import {
  MOST_SKIP_S,
  SKIP_CHOICES,
  skipLengthS,
  type SkipChoice,
} from '@plain-trowel/core/control/host/skips';
import { skippedUntil } from '@plain-trowel/core/control/host/answers';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import { whenText } from '@plain-trowel/core/telling/plotToday';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Select } from '../../../../ui/Select.tsx';

const DAYS = Math.round(MOST_SKIP_S / 86_400);
const CHOICE_NAMES: Readonly<Record<SkipChoice, string>> = {
  morning: 'until 6 in the morning',
  day: 'for a day',
  'three days': 'for three days',
  week: 'for a week',
  'two weeks': 'for two weeks',
  longest: `for ${DAYS} days`,
};

/** How long a skip from now on would be, and when it would end. */
export function useSkip(choice: SkipChoice) {
  const { garden } = useGarden();
  const live = useLive();
  const forS = skipLengthS(choice, localTimeIn(garden.timeZone)(live.nowMs).daySecond);
  return { forS, untilText: whenText(live.nowMs + forS * 1000, live.nowMs, garden.timeZone) };
}

export function SkipSelect({
  value,
  onChange,
}: {
  value: SkipChoice;
  onChange: (value: SkipChoice) => void;
}) {
  return (
    <Select<SkipChoice>
      label="Skip watering"
      className="w-[220px]"
      value={value}
      groups={[{ name: '', options: SKIP_CHOICES.map((one) => ({ value: one, label: CHOICE_NAMES[one] })) }]}
      onChange={onChange}
    />
  );
}

/** Tells a line to water nothing by itself for a while, and to begin again. */
export function SkipPanel({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  const [choice, setChoice] = useState<SkipChoice>('day');
  const skip = useSkip(choice);
  const answer = live.answers[line.id];
  const orders = live.source?.orders;
  if (!orders || !answer || !line.automatic || line.program.kind === 'alert-only') return null;
  const order = (forS: number) => {
    orders.order({ lineId: line.id, kind: 'skip', forS });
    session.refresh();
  };
  const untilMs = skippedUntil(answer, live.nowMs);
  return (
    <section aria-label="Skip watering" className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-2">
      {untilMs !== null ? (
        <>
          <p role="status" className="max-w-[62ch] border-l-[3px] border-rill pl-3">
            <b className="font-semibold">
              {line.name} is skipped until {whenText(untilMs, live.nowMs, garden.timeZone)}.
            </b>{' '}
            It waters nothing by itself until then, as its board keeps the time itself. Orders by hand go on.
          </p>
          <Button onClick={() => order(0)}>Water by itself again</Button>
        </>
      ) : (
        <>
          <SkipSelect value={choice} onChange={setChoice} />
          <Button onClick={() => order(skip.forS)}>Skip until {skip.untilText}</Button>
        </>
      )}
    </section>
  );
}
