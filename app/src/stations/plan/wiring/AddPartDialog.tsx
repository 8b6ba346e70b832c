import { useState } from 'react';
import { ROLES } from '@plain-trowel/core/catalogue/schema';
import type { NewPart } from '@plain-trowel/core/wiring/edit';
import { COLOUR_TAGS, type ColourTag } from '@plain-trowel/core/wiring/netlist';
import { partsWith } from '@plain-trowel/core/wiring/look';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Field } from '../../../ui/Field.tsx';
import type { usePlan } from '../usePlan.ts';

/** A part from the catalogue, with the label it will carry on the bench. */
export function AddPartDialog({
  plan,
  onClose,
  onAdd,
}: {
  plan: ReturnType<typeof usePlan>;
  onClose: () => void;
  onAdd: (of: NewPart) => void;
}) {
  const [entryId, setEntryId] = useState('probe-capacitive');
  const [label, setLabel] = useState('');
  const [colour, setColour] = useState<ColourTag>('none');
  const boards = partsWith(plan.circuit, 'board');
  const [boardId, setBoardId] = useState(boards[0]?.part.id ?? '');
  const entry = plan.catalogue.get(entryId);
  const taken = plan.wiring.parts.some((part) => part.label === label.trim());
  return (
    <Dialog
      open
      onClose={onClose}
      title="Add a part"
      description="What is not in the list can be described under Parts, Catalogue."
    >
      <form
        className="grid gap-x-5 gap-y-3 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!taken)
            onAdd({
              entryId,
              label: label.trim(),
              colour,
              boardId: boardId === '' || entry?.role === 'board' ? null : boardId,
            });
        }}
      >
        <Field label="Part" className="sm:col-span-2">
          {(props) => (
            <select {...props} value={entryId} onChange={(event) => setEntryId(event.target.value)}>
              {ROLES.map((role) => {
                const entries = [...plan.catalogue.values()].filter((one) => one.role === role);
                return entries.length === 0 ? null : (
                  <optgroup key={role} label={role}>
                    {entries.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </optgroup>
                );
              })}
            </select>
          )}
        </Field>
        <p className="text-[14px] text-soft sm:col-span-2">
          {entry?.good} {entry?.bad}
        </p>
        <Field
          label="Label"
          hint="Left empty, it gets the next of its kind."
          error={taken ? 'Another part has this label. Choose one of its own.' : undefined}
        >
          {(props) => (
            <input
              {...props}
              value={label}
              maxLength={60}
              onChange={(event) => setLabel(event.target.value)}
            />
          )}
        </Field>
        <Field label="Colour tag">
          {(props) => (
            <select
              {...props}
              value={colour}
              onChange={(event) => setColour(event.target.value as ColourTag)}
            >
              {COLOUR_TAGS.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          )}
        </Field>
        {boards.length > 0 && entry?.role !== 'board' && (
          <Field label="Belongs to">
            {(props) => (
              <select {...props} value={boardId} onChange={(event) => setBoardId(event.target.value)}>
                {boards.map((board) => (
                  <option key={board.part.id} value={board.part.id}>
                    {board.part.label}
                  </option>
                ))}
                <option value="">all of them</option>
              </select>
            )}
          </Field>
        )}
        <div className="flex gap-2 sm:col-span-2">
          <Button look="primary" type="submit" disabled={taken}>
            Add it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
