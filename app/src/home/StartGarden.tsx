import { zodResolver } from '@hookform/resolvers/zod';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { addPlot, emptyGarden } from '@plain-trowel/core/garden/edits/plots';
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
import { BoardFields, PlotFields, PumpFields } from './PartsFields.tsx';
import { emptyParts, partsOf, partsSchema, type PartsRead, type PartsText } from './partsForm.ts';

/** A new garden from what lies on the bench: one plot, its probe and its board. */
export default function StartFromParts() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [gardenName, setGardenName] = useState('My garden');
  const [problem, setProblem] = useState<string | null>(null);
  const form = useForm<PartsText, unknown, PartsRead>({
    resolver: zodResolver(partsSchema),
    defaultValues: emptyParts,
  });

  const create = async (read: PartsRead) => {
    const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
    const making = { random: Math.random, nowIso: new Date().toISOString() };
    const name = gardenName.trim().slice(0, 60) || 'My garden';
    const { garden, plotId } = addPlot(emptyGarden(name, timeZone, making), partsOf(read), Math.random);
    try {
      await storeNewGarden(await database(), garden, {
        readings: new Map(),
        events: [],
        link: { world: null, openAtStart: false, alerts: {} },
      });
      await client.invalidateQueries({ queryKey: gardensQuery().queryKey });
      await navigate(sheetPath(garden.id, 'bench', 'readout', plotId));
    } catch (error) {
      setProblem(
        error instanceof RefusedError
          ? refusedText(error.faults)
          : `The garden was not saved; what you typed is still here. ${storageText(problemOf(error))}`,
      );
    }
  };
  return (
    <main className="mx-auto max-w-[680px] px-5 py-10">
      <Link to="/" className="text-[14px] text-soft underline underline-offset-4">
        Back
      </Link>
      <h1 className="mt-3">Start from my parts</h1>
      <p className="mb-6 text-soft">
        One plot is enough to begin; more can be added later. Everything can be changed.
      </p>
      <FormProvider {...form}>
        <form
          onSubmit={(event) => void form.handleSubmit(create)(event)}
          noValidate
          className="flex flex-col gap-6"
        >
          <Field label="Garden" className="max-w-[310px]">
            {(props) => (
              <input
                {...props}
                value={gardenName}
                maxLength={60}
                onChange={(event) => setGardenName(event.target.value)}
              />
            )}
          </Field>
          <section className="border-t border-ink pt-4">
            <h2 className="mb-3">The plot and its probe</h2>
            <PlotFields />
          </section>
          <section className="border-t border-ink pt-4">
            <h2 className="mb-3">The board</h2>
            <BoardFields boards={[]} />
          </section>
          <section className="border-t border-ink pt-4">
            <h2 className="mb-3">Water</h2>
            <PumpFields />
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
