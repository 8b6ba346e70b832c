import {
  REGISTER_TYPES,
  WORD_ORDERS,
  type BusQuantity,
  type RegisterField,
} from '@plain-trowel/core/bus/registers';

/** A field while it is being typed: its numbers may not be numbers yet. */
export type TypedField = Omit<RegisterField, 'register' | 'scale' | 'offset'> & {
  readonly register: string;
  readonly scale: string;
  readonly offset: string;
};

/** One field of a register map, every cell with its own name for screen readers. */
export function RegisterRow({
  row,
  field,
  quantities,
  onChange,
  onRemove,
}: {
  row: number;
  field: TypedField;
  quantities: readonly BusQuantity[];
  onChange: (part: Partial<TypedField>) => void;
  onRemove: () => void;
}) {
  const text = (title: string, key: 'name' | 'unit' | 'register' | 'scale' | 'offset', width: string) => (
    <td>
      <input
        aria-label={`${title} of field ${row}`}
        className={`field ${width}`}
        value={field[key]}
        onChange={(event) => onChange({ [key]: event.target.value })}
      />
    </td>
  );
  const select = <T extends string>(
    title: string,
    value: T,
    options: readonly T[],
    set: (value: T) => void,
  ) => (
    <td>
      <select
        aria-label={`${title} of field ${row}`}
        className="field"
        value={value}
        onChange={(event) => set(options.find((one) => one === event.target.value) ?? value)}
      >
        {options.map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </select>
    </td>
  );
  return (
    <tr>
      {select('Quantity', field.quantity, quantities, (quantity) => onChange({ quantity }))}
      {text('Name', 'name', 'w-[120px]')}
      {text('Unit', 'unit', 'w-[80px]')}
      {text('Register', 'register', 'w-[80px]')}
      {select('Type', field.type, REGISTER_TYPES, (type) => onChange({ type }))}
      {select('Word order', field.wordOrder, WORD_ORDERS, (wordOrder) => onChange({ wordOrder }))}
      {text('Scale', 'scale', 'w-[70px]')}
      {text('Offset', 'offset', 'w-[70px]')}
      <td>
        <button
          type="button"
          className="press underline underline-offset-4"
          onClick={onRemove}
          aria-label={`Remove field ${row}`}
        >
          Remove
        </button>
      </td>
    </tr>
  );
}
