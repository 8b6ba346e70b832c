import { zodResolver } from '@hookform/resolvers/zod';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FormProvider, useFieldArray, useForm, useFormContext } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { MOST } from '@plain-trowel/core/quantity/bounds';
import { addPlots } from '@plain-trowel/core/garden/edits/alike';
import { emptyGarden } from '@plain-trowel/core/garden/edits/plots';
import { gardensQuery } from '../data/queries.ts';
import { RefusedError } from '../data/gardenStore.ts';
import { storeNewGarden } from '../data/newGarden.ts';
import { database } from '../data/services.ts';
import { problemOf } from '../data/storageProblem.ts';
import { refusedText } from '../words/gardenFaultText.ts';
import { storageText } from '../words/storageText.ts';
import { sheetPath } from '../frame/stations.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { BoardFields, HasProbe, PLOT_KIND_OPTIONS, ProbeFields, PumpFields } from './PartsFields.tsx';
import { EMPTY_ROW, emptyStart, plotsOf, startSchema, type StartRead, type StartText } from './partsForm.ts';

/** Makes the garden and goes to where the next step is: to the readout with parts, to Plan without. */
function useMaking() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const make = async (read: StartRead) => {
    const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
    const making = { random: Math.random, nowIso: new Date().toISOString() };
    const { rows, parts } = plotsOf(read);
    if (rows.reduce((sum, row) => sum + row.count, 0) > MOST.plots) {
      setProblem(`A garden holds at most ${MOST.plots} plots.`);
      return;
    }
    const empty = emptyGarden(read.gardenName || 'My garden', timeZone, making);
    const { garden, plotIds } = addPlots(empty, rows, parts, Math.random);
    try {
      await storeNewGarden(await database(), garden, {
        readings: new Map(),
        events: [],
        link: { world: null, openAtStart: false, alerts: {} },
      });
      await client.invalidateQueries({ queryKey: gardensQuery().queryKey });
      await navigate(
        parts
          ? sheetPath(garden.id, 'bench', 'readout', plotIds[0] ?? null)
          : sheetPath(garden.id, 'plan', 'parts', null),
      );
    } catch (error) {
      setProblem(
        error instanceof RefusedError
          ? refusedText(error.faults)
          : `The garden was not saved; what you typed is still here. ${storageText(problemOf(error))}`,
      );
    }
  };
  return { make, problem };
}

/** A new garden: its name and its plots; board and probes where they are there already. */
export default function StartGarden() {
  const { make, problem } = useMaking();
  const form = useForm<StartText, unknown, StartRead>({
    resolver: zodResolver(startSchema),
    defaultValues: emptyStart,
  });
  return (
    <main className="mx-auto max-w-[680px] px-5 py-10">
      <Link to="/" className="text-[14px] text-soft underline underline-offset-4">
        Back
      </Link>
      <h1 className="mt-3">Start my own garden</h1>
      <p className="mb-6 text-soft">Its name and its plots are enough to begin. Everything can be changed.</p>
      <FormProvider {...form}>
        <form
          onSubmit={(event) => void form.handleSubmit(make)(event)}
          noValidate
          className="flex flex-col gap-6"
        >
          <Field label="Garden" className="max-w-[310px]" error={form.formState.errors.gardenName?.message}>
            {(props) => (
              <input {...props} {...form.register('gardenName')} maxLength={60} autoComplete="off" />
            )}
          </Field>
          <section className="border-t border-ink pt-4">
            <h2 className="mb-3">Plots</h2>
            <Rows />
          </section>
          <section className="flex flex-col gap-5 border-t border-ink pt-4">
            <h2>Board and probes</h2>
            <HasProbe label="I have them already">
              <ProbeFields />
              <BoardFields boards={[]} />
              <PumpFields />
            </HasProbe>
          </section>
          {problem !== null && (
            <p role="alert" className="font-medium text-handle">
              {problem}
            </p>
          )}
          <div>
            <Button type="submit" look="primary">
              Make the garden
            </Button>
          </div>
        </form>
      </FormProvider>
    </main>
  );
}

/** One row a plot, or for several alike. */
function Rows() {
  const { control, register, formState } = useFormContext<StartText>();
  const { fields, append, remove } = useFieldArray({ control, name: 'rows' });
  return (
    <div className="flex flex-col gap-3">
      {fields.map((field, at) => {
        const errors = formState.errors.rows?.[at];
        return (
          <div
            key={field.id}
            className="grid grid-cols-2 items-start gap-x-4 gap-y-2 sm:grid-cols-[1fr_150px_120px_84px]"
          >
            <Field label="Plot" error={errors?.name?.message} className="col-span-2 sm:col-span-1">
              {(props) => (
                <input
                  {...props}
                  {...register(`rows.${at}.name`)}
                  placeholder="Chilli crate"
                  autoComplete="off"
                />
              )}
            </Field>
            <Field label="What it is">
              {(props) => (
                <select {...props} {...register(`rows.${at}.kind`)}>
                  {PLOT_KIND_OPTIONS.map(({ value, label }) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </select>
              )}
            </Field>
            <Field label="How many alike" error={errors?.alike?.message}>
              {(props) => (
                <input {...props} {...register(`rows.${at}.alike`)} inputMode="numeric" autoComplete="off" />
              )}
            </Field>
            {fields.length > 1 && (
              <Button
                look="quiet"
                className="sm:mt-5"
                onClick={() => remove(at)}
                aria-label={`Remove row ${at + 1}`}
              >
                Remove
              </Button>
            )}
          </div>
        );
      })}
      <div>
        <Button onClick={() => append(EMPTY_ROW)}>Another plot</Button>
      </div>
    </div>
  );
}
