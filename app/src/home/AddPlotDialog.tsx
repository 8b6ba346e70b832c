import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../ui/AddButton.tsx';
import { zodResolver } from '@hookform/resolvers/zod';
import { FormProvider, useForm } from 'react-hook-form';
import { useLocation, useNavigate } from 'react-router';
import { addPlots } from '@plain-trowel/core/garden/edits/alike';
import { useGarden } from '../data/gardenContext.ts';
import { Button } from '../ui/Button.tsx';
import { Dialog } from '../ui/Dialog.tsx';
import { BoardFields, HasProbe, PlotFields, ProbeFields, PumpFields } from './PartsFields.tsx';
import {
  emptyParts,
  NEW_BOARD,
  partsSchema,
  plotsOf,
  type PartsRead,
  type PartsText,
  depthTyped,
} from './partsForm.ts';
import { USUAL_DEPTH_CM } from '@plain-trowel/core/garden/edits/plots';

/** Adds a plot with its probe to the open garden. */
export default function AddPlotDialog({ onClose }: { onClose: () => void }) {
  const { garden, commit } = useGarden();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const form = useForm<PartsText, unknown, PartsRead>({
    resolver: zodResolver(partsSchema),
    defaultValues: {
      ...emptyParts,
      ...depthTyped(USUAL_DEPTH_CM, garden.units),
      boardChoice: garden.boards[0]?.id ?? NEW_BOARD,
    },
  });
  const save = async (read: PartsRead) => {
    let plotId = '';
    const saved = await commit(
      `add ${read.plotName}`,
      (before) => {
        const { rows, parts } = plotsOf(read);
        const added = addPlots(before, rows, parts, Math.random);
        plotId = added.plotIds[0] ?? '';
        return { garden: added.garden };
      },
      read.alike > 1 ? `${read.alike} plots are in the garden.` : `${read.plotName} is in the garden.`,
    );
    if (!saved) return;
    onClose();
    void navigate(`${pathname}?plot=${plotId}`);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Add a plot"
      description="A pot, trough, bed or lawn zone, or several alike."
    >
      <FormProvider {...form}>
        <form
          onSubmit={(event) => void form.handleSubmit(save)(event)}
          noValidate
          className="flex flex-col gap-5"
        >
          <PlotFields isNew />
          <HasProbe label="Its board and probe are there already">
            <ProbeFields />
            <BoardFields boards={garden.boards} />
            <PumpFields />
          </HasProbe>
          <div className="flex gap-3">
            <AddButton
              count={garden.plots.length}
              most={MOST.plots}
              what="plots"
              type="submit"
              look="primary"
            >
              Add the plot
            </AddButton>
            <Button onClick={onClose}>Cancel</Button>
          </div>
        </form>
      </FormProvider>
    </Dialog>
  );
}
