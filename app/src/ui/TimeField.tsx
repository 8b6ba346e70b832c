import { minuteOf, minuteText } from '@plain-trowel/core/quantity/timeText';
import { useTyped } from './useTyped.ts';

/** A time of the day as "20:05", whatever the browser's own habit. Kept on Enter or when left; what is no time stays, marked. */
export function TimeField({
  label,
  minute,
  onKeep,
}: {
  label: string;
  minute: number;
  onKeep: (minute: number) => void;
}) {
  const { typed, type, drop, handOver } = useTyped();
  const read = typed === null ? null : minuteOf(typed);
  const isWrong = typed !== null && read === null;
  const keep = () => {
    if (read === null) return;
    handOver();
    if (read !== minute) onKeep(read);
  };
  return (
    <input
      aria-label={label}
      aria-invalid={isWrong}
      title={isWrong ? 'A time such as 06:30' : undefined}
      className="field num min-h-[32px]! w-[74px] py-0.5! text-center"
      inputMode="numeric"
      value={typed ?? minuteText(minute)}
      onChange={(event) => type(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') drop();
      }}
    />
  );
}
