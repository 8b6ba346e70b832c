import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { useState } from 'react';
import {
  BUS_QUANTITIES,
  REGISTER_TYPES,
  registerMapSchema,
  WORD_ORDERS,
  type RegisterField,
  type RegisterMap,
} from '@plain-trowel/core/bus/registers';
import { setRegisterMap } from '@plain-trowel/core/garden/edits/bench';
import { makeId } from '@plain-trowel/core/garden/document/ids';
import { fieldName, plainMessage } from '@plain-trowel/core/quantity/fieldName';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Dialog } from '../../../../ui/Dialog.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { RegisterRow, type TypedField } from './RegisterRow.tsx';

const typedOf = (field: RegisterField): TypedField => ({
  ...field,
  register: String(field.register),
  scale: String(field.scale),
  offset: String(field.offset),
});

/** A register map of one's own: where a probe keeps which quantity, as its sheet says. Begins as a copy of the map that is chosen. */
export default function MapDialog({
  map,
  onClose,
  onKept,
}: {
  map: RegisterMap;
  onClose: () => void;
  onKept: (mapId: string) => void;
}) {
  const { garden, commit } = useGarden();
  const isOwn = garden.registerMaps.some((one) => one.id === map.id);
  const [name, setName] = useState(isOwn ? map.name : `My probe, ${map.name.toLowerCase()}`);
  const [readFunction, setReadFunction] = useState(String(map.readFunction));
  const [addressRegister, setAddressRegister] = useState(map.address ? String(map.address.register) : '');
  const [fields, setFields] = useState<readonly TypedField[]>(map.fields.map(typedOf));
  const number = (text: string) => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')));
  const [id] = useState(() =>
    isOwn ? map.id : makeId('map', new Set(garden.registerMaps.map((one) => one.id)), Math.random),
  );
  const read = registerMapSchema.safeParse({
    id,
    name,
    readFunction: Number(readFunction),
    fields: fields.map((field) => ({
      ...field,
      register: number(field.register),
      scale: number(field.scale),
      offset: number(field.offset),
    })),
    address:
      addressRegister.trim() === ''
        ? null
        : { register: number(addressRegister), writeFunction: map.address?.writeFunction ?? 6 },
  });
  const issue = read.success ? null : read.error.issues[0];
  const change = (at: number, part: Partial<TypedField>) =>
    setFields(fields.map((one, place) => (place === at ? { ...one, ...part } : one)));
  const add = () =>
    setFields([
      ...fields,
      {
        quantity: 'other',
        name: `value${fields.length + 1}`,
        unit: '',
        register: String(fields.length),
        type: REGISTER_TYPES[1],
        wordOrder: WORD_ORDERS[0],
        scale: '1',
        offset: '0',
      },
    ]);
  const keep = () => {
    if (!read.success) return;
    void commit(
      `register map ${read.data.name}`,
      (before) => ({ garden: setRegisterMap(before, read.data) }),
      `${read.data.name} is kept with the garden.`,
    ).then((saved) => saved && onKept(read.data.id));
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="A register map of your own"
      description="Copy it from your probe’s sheet: the value is the number in the register × scale + offset."
    >
      <div className="flex flex-col items-start gap-4">
        <div className="grid w-full gap-4 sm:grid-cols-3">
          <Field label="Name">
            {(props) => (
              <input
                {...props}
                value={name}
                maxLength={60}
                onChange={(event) => setName(event.target.value)}
              />
            )}
          </Field>
          <Field label="Read with">
            {(props) => (
              <select
                {...props}
                value={readFunction}
                onChange={(event) => setReadFunction(event.target.value)}
              >
                <option value="3">function 03, holding registers</option>
                <option value="4">function 04, input registers</option>
              </select>
            )}
          </Field>
          <Field label="Register of its address" hint="Empty: it cannot be changed over the bus.">
            {(props) => (
              <input
                {...props}
                inputMode="numeric"
                value={addressRegister}
                onChange={(event) => setAddressRegister(event.target.value)}
              />
            )}
          </Field>
        </div>
        <Scroll label="Fields of the map" className="w-full">
          <table>
            <thead>
              <tr>
                {['Quantity', 'Name', 'Unit', 'Register', 'Type', 'Words', 'Scale', 'Offset', 'Remove'].map(
                  (title) => (
                    <th key={title}>{title}</th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {fields.map((field, at) => (
                <RegisterRow
                  key={at}
                  row={at + 1}
                  field={field}
                  quantities={BUS_QUANTITIES}
                  onChange={(part) => change(at, part)}
                  onRemove={() => setFields(fields.filter((_, place) => place !== at))}
                />
              ))}
            </tbody>
          </table>
        </Scroll>
        <AddButton count={fields.length} most={MOST.registerFields} what="fields" onClick={add}>
          Add a field
        </AddButton>
        {issue && (
          <p role="alert" className="border-l-[3px] border-handle pl-3">
            {fieldName(issue.path)}: {plainMessage(issue.message)}.
          </p>
        )}
        <div className="flex gap-3">
          <AddButton
            count={isOwn ? 0 : garden.registerMaps.length}
            most={MOST.registerMaps}
            what="own register maps"
            look="primary"
            disabled={!read.success}
            onClick={keep}
          >
            Keep the map
          </AddButton>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
