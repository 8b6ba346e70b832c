import { Field } from './Field.tsx';

/** One of many, as a list that opens; groups keep a long list readable. */
export function Select<Value extends string>({
  label,
  value,
  groups,
  hint,
  error,
  className,
  onChange,
}: {
  label: string;
  value: Value;
  groups: readonly { readonly name: string; readonly options: readonly { value: Value; label: string }[] }[];
  hint?: string | undefined;
  error?: string | undefined;
  className?: string;
  onChange: (value: Value) => void;
}) {
  return (
    <Field label={label} hint={hint} error={error} {...(className === undefined ? {} : { className })}>
      {(props) => (
        <select
          {...props}
          value={value}
          onChange={(event) => {
            const chosen = groups
              .flatMap((group) => group.options)
              .find((one) => one.value === event.target.value);
            if (chosen) onChange(chosen.value);
          }}
        >
          {groups.map((group) =>
            group.name === '' ? (
              group.options.map((one) => (
                <option key={one.value} value={one.value}>
                  {one.label}
                </option>
              ))
            ) : (
              <optgroup key={group.name} label={group.name}>
                {group.options.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.label}
                  </option>
                ))}
              </optgroup>
            ),
          )}
        </select>
      )}
    </Field>
  );
}
