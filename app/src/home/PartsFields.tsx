import type { ReactNode } from 'react';
import { useFormContext, type FieldPath } from 'react-hook-form';
import { BOARD_TRAITS } from '@plain-trowel/core/catalogue/boardTraits';
import { COLOUR_TAGS } from '@plain-trowel/core/wiring/netlist';
import { PLOT_KINDS, type Board } from '@plain-trowel/core/garden/document/schema';
import { DECIDING_KINDS, PROBE_KINDS } from '@plain-trowel/core/quantity/probeKind';
import { Field } from '../ui/Field.tsx';
import { NEW_BOARD, type PartsText } from './partsForm.ts';

function TextField({
  name,
  label,
  unit,
  hint,
  placeholder,
  wide,
}: {
  name: FieldPath<PartsText>;
  label: string;
  unit?: string;
  hint?: string;
  placeholder?: string;
  wide?: boolean;
}) {
  const { register, formState } = useFormContext<PartsText>();
  return (
    <Field
      label={label}
      unit={unit}
      hint={hint}
      error={formState.errors[name]?.message}
      className={wide ? 'sm:col-span-2' : ''}
    >
      {(props) => <input {...props} {...register(name)} placeholder={placeholder} autoComplete="off" />}
    </Field>
  );
}

function SelectField({
  name,
  label,
  options,
  onPicked,
}: {
  name: FieldPath<PartsText>;
  label: string;
  options: readonly { value: string; label: string }[];
  onPicked?: (value: string) => void;
}) {
  const { register } = useFormContext<PartsText>();
  return (
    <Field label={label}>
      {(props) => (
        <select
          {...props}
          {...register(name, {
            onChange: (event: { target: { value: string } }) => onPicked?.(event.target.value),
          })}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

const same = (value: string) => ({ value, label: value });

/** What a plot roughly is; nobody has to say. */
export const PLOT_KIND_OPTIONS = [
  { value: '', label: 'not said' },
  ...PLOT_KINDS.map((kind) => ({
    value: kind,
    label: { pot: 'pot', trough: 'trough or crate', bed: 'bed', lawn: 'lawn' }[kind],
  })),
];

/** The plot itself. @param isNew whether several alike can be added at once */
export function PlotFields({ isNew = false }: { isNew?: boolean }) {
  return (
    <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
      <TextField name="plotName" label="Plot" placeholder="Chilli crate" />
      <TextField name="plant" label="What grows there" placeholder="six chillies" />
      <SelectField name="plotKind" label="What it is" options={PLOT_KIND_OPTIONS} />
      {isNew && (
        <TextField
          name="alike"
          label="How many alike"
          unit="plots"
          hint="Names, labels and inputs are numbered on."
        />
      )}
    </div>
  );
}

/** Whether board and probe are there already; what is under it counts only then. */
export function HasProbe({ label, children }: { label: string; children: ReactNode }) {
  const { register, watch } = useFormContext<PartsText>();
  return (
    <>
      <label className="press flex items-center gap-2.5">
        <input type="checkbox" {...register('hasProbe')} className="size-4.5 accent-handle" /> {label}
      </label>
      {watch('hasProbe') ? (
        children
      ) : (
        <p className="text-[13.5px] text-soft">
          Not chosen yet. Plan asks a few questions, and what it lays out is put in here.
        </p>
      )}
    </>
  );
}

/** The probe and how it is read. */
export function ProbeFields() {
  const { getValues, watch } = useFormContext<PartsText>();
  const decides = DECIDING_KINDS.includes(watch('probeKind'));
  return (
    <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
      <SelectField name="probeKind" label="Kind of probe" options={PROBE_KINDS.map(same)} />
      <TextField name="probeLabel" label="Label on the probe" placeholder="C2" />
      <SelectField name="colour" label="Colour tag" options={COLOUR_TAGS.map(same)} />
      <TextField name="depthCm" label="Depth in the soil" unit={getValues('depthUnit')} />
      <TextField name="pin" label="Where it is connected" placeholder="input 2" />
      <TextField
        name="streamName"
        label="Name that the board prints"
        hint='The word in front of the number, or "value" for a bare number.'
      />
      {!decides && (
        <p className="text-[13.5px] text-soft sm:col-span-2">
          This kind says nothing about how wet soil is (the air in soil is all but saturated at any wetness):
          it is shown and logged, and decides nothing here.
        </p>
      )}
    </div>
  );
}

/** The board: one that is known already, or a new one by its traits. */
export function BoardFields({ boards }: { boards: readonly Board[] }) {
  const { watch, setValue } = useFormContext<PartsText>();
  const isNew = watch('boardChoice') === NEW_BOARD;
  return (
    <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
      {boards.length > 0 && (
        <SelectField
          name="boardChoice"
          label="Board"
          options={[
            ...boards.map((board) => ({ value: board.id, label: board.name })),
            { value: NEW_BOARD, label: 'Another board' },
          ]}
        />
      )}
      {isNew && (
        <>
          <TextField name="boardName" label="Name of the board" />
          <SelectField
            name="boardTraits"
            label="Its traits"
            options={traitOptions(watch('boardTraits'))}
            onPicked={(traits) => {
              const picked = BOARD_TRAITS.find((one) => one.traits === traits);
              if (!picked) return;
              setValue('adcBits', String(picked.adcBits));
              setValue('supplyV', String(picked.supplyV));
            }}
          />
          <TextField name="adcBits" label="Resolution of its inputs" unit="bits" />
          <TextField
            name="supplyV"
            label="Voltage that feeds the probe"
            unit="V"
            hint="A calibration holds for this voltage only."
          />
        </>
      )}
    </div>
  );
}

/** The known traits, and those of a board that was described in other words. */
function traitOptions(present: string) {
  const known = BOARD_TRAITS.map((one) => one.traits);
  return (known.includes(present) ? known : [present, ...known]).map(same);
}

/** A pump, if there is one. */
export function PumpFields() {
  const { register, watch } = useFormContext<PartsText>();
  return (
    <div className="flex flex-col gap-3">
      <label className="press flex items-center gap-2.5">
        <input type="checkbox" {...register('hasPump')} className="size-4.5 accent-handle" /> A pump waters
        this plot
      </label>
      {watch('hasPump') && (
        <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
          <TextField
            name="flowMlPerS"
            label="What the pump gives"
            unit="ml/s"
            hint="Fill a jug for 10 seconds and divide by 10."
          />
          <p className="text-[13.5px] text-soft sm:col-span-2">
            The pump stays off until you switch it on under Rules, Limits. Never feed a pump from a board’s
            pin, and put a fuse by the battery; work on mains is for a licensed electrician.
          </p>
        </div>
      )}
    </div>
  );
}
