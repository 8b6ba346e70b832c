import { useState, type ReactNode } from 'react';
import { dayIn, daysStretch, type Stretch } from '@plain-trowel/core/records/stretch';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Field } from '../../../ui/Field.tsx';
import { LENGTHS, MOST_STEP_MS, type StretchTools } from './useStretch.ts';

/** As the fields have them, "2026-05-01". */
type Days = { readonly from: string; readonly to: string };

/** Which stretch of time is shown: how long, where it lies, by days; and the way back to the newest. */
export function StretchBar({
  tools,
  extent,
  timeZone,
  children,
}: {
  readonly tools: StretchTools;
  /** What the record holds of this channel; null: nothing, or not known yet. */
  readonly extent: Stretch | null;
  readonly timeZone: string;
  /** What else stands in the bar. */
  readonly children: ReactNode;
}) {
  const shown: Days = { from: dayIn(tools.fromMs, timeZone), to: dayIn(tools.toMs - 1, timeZone) };
  const [typed, setTyped] = useState<Partial<Days>>({});
  const day = (name: keyof Days) => ({
    type: 'date',
    value: typed[name] ?? shown[name],
    onChange: ({ target: { value } }: { target: { value: string } }) => {
      const days: Days = { ...shown, ...typed, [name]: value };
      const { from, to } = days;
      // A day on the wrong side of the other one takes that along.
      const stretch = from > to ? daysStretch(value, value, timeZone) : daysStretch(from, to, timeZone);
      setTyped(stretch ? {} : { ...typed, [name]: value });
      if (stretch) tools.show(stretch);
    },
  });
  return (
    <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <Choice legend="Stretch of time" options={LENGTHS} value={tools.hours} onChange={tools.setHours} />
      <div className="flex gap-2">
        <Button onClick={() => tools.move(-0.5)}>Earlier</Button>
        <Button disabled={tools.follows} onClick={() => tools.move(0.5)}>
          Later
        </Button>
        <Button disabled={tools.follows} onClick={tools.toNewest}>
          Newest
        </Button>
        <Button
          disabled={extent === null}
          onClick={() => extent && tools.show({ ...extent, fromMs: extent.fromMs - MOST_STEP_MS })}
        >
          All of it
        </Button>
      </div>
      <div className="flex gap-3">
        <Field label="From the day" className="w-[148px]">
          {(props) => <input {...props} {...day('from')} />}
        </Field>
        <Field label="To the day" className="w-[148px]">
          {(props) => <input {...props} {...day('to')} />}
        </Field>
      </div>
      {children}
    </div>
  );
}
