import { Button } from '../../../../../ui/Button.tsx';
import { Field } from '../../../../../ui/Field.tsx';

/** A secret that is typed and never shown. */
export function SecretField({
  label,
  hint,
  className,
  value,
  onType,
}: {
  label: string;
  hint: string;
  className: string;
  value: string;
  onType: (value: string) => void;
}) {
  return (
    <Field label={label} hint={hint} className={className}>
      {(props) => (
        <input
          {...props}
          type="password"
          autoComplete="new-password"
          value={value}
          onChange={(event) => onType(event.target.value)}
        />
      )}
    </Field>
  );
}

/** What was wrong with what was typed, and the two ways out of a form. */
export function FormEnd({ problem, onCancel }: { problem: string | null; onCancel: () => void }) {
  return (
    <>
      {problem !== null && (
        <p role="alert" className="basis-full border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
      <span className="flex basis-full gap-3">
        <Button look="primary" type="submit">
          Keep
        </Button>
        <Button look="quiet" onClick={onCancel}>
          Cancel
        </Button>
      </span>
    </>
  );
}
