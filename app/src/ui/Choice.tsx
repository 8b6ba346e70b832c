import { clsx } from 'clsx';
import { useId } from 'react';

/** One of a few, side by side; radio buttons underneath, so that arrow keys and screen readers work as they know. */
export function Choice<Value extends string | number>({
  legend,
  options,
  value,
  onChange,
  showLegend = false,
}: {
  legend: string;
  options: readonly { value: Value; label: string; disabled?: boolean }[];
  /** Null while nothing is chosen. */
  value: Value | null;
  onChange: (value: Value) => void;
  showLegend?: boolean;
}) {
  const name = useId();
  return (
    <fieldset className="flex min-w-0 items-center gap-2">
      <legend className={clsx(showLegend ? 'float-left pr-2 text-[13.5px] text-soft' : 'sr-only')}>
        {legend}
      </legend>
      <div className="flex flex-wrap">
        {options.map((option) => (
          <label
            key={option.value}
            className={clsx(
              'press -ml-px inline-flex min-h-[34px] items-center border border-ink px-3 text-[14px] first:ml-0 first:rounded-l-[2px] last:rounded-r-[2px]',
              'has-focus-visible:outline-2 has-focus-visible:outline-offset-2 has-focus-visible:outline-handle',
              value === option.value
                ? 'bg-ink font-semibold text-paper'
                : option.disabled
                  ? 'text-soft'
                  : 'cursor-pointer hover:bg-paper-2',
            )}
          >
            <input
              type="radio"
              className="sr-only"
              name={name}
              checked={value === option.value}
              disabled={option.disabled}
              onChange={() => onChange(option.value)}
            />
            {option.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
