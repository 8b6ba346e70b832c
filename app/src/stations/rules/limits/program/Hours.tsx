import type { SavedConditions } from '@plain-trowel/core/control/conditions/conditions';
import { TimeField } from '../../../../ui/TimeField.tsx';

/** Between which times of the day. */
export function Hours({
  hours,
  onChange,
}: {
  hours: NonNullable<SavedConditions['hours']>;
  onChange: (hours: NonNullable<SavedConditions['hours']>) => void;
}) {
  const field = (key: 'fromMinute' | 'toMinute', label: string) => (
    <TimeField label={label} minute={hours[key]} onKeep={(minute) => onChange({ ...hours, [key]: minute })} />
  );
  return (
    <span className="flex items-center gap-2">
      {field('fromMinute', 'From')} to {field('toMinute', 'Until')}
    </span>
  );
}
