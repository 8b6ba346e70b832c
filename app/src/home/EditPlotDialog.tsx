import { byId } from '@plain-trowel/core/quantity/byId';
import { zodResolver } from '@hookform/resolvers/zod';
import { FormProvider, useForm } from 'react-hook-form';
import { editPlot, namePlot, removePlot, USUAL_DEPTH_CM } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../data/gardenContext.ts';
import { Button } from '../ui/Button.tsx';
import { Dialog } from '../ui/Dialog.tsx';
import { BoardFields, HasProbe, PlotFields, ProbeFields, PumpFields } from './PartsFields.tsx';
import { SoilField } from './SoilField.tsx';
import {
  emptyParts,
  NEW_BOARD,
  partsOf,
  partsSchema,
  type PartsRead,
  type PartsText,
  depthTyped,
} from './partsForm.ts';

/** Changes a plot's and its probe's details, or takes the plot out of the garden; both can be undone. */
export default function EditPlotDialog({ parts, onClose }: { parts: PlotParts; onClose: () => void }) {
  const { garden: present, commit } = useGarden();
  const { plot, probe, line } = parts;
  // A probe that decides nothing has its channel and board all the same.
  const channel = parts.channel ?? parts.garden.channels.find((one) => one.probeId === probe?.id) ?? null;
  const board = parts.board ?? byId(parts.garden.boards, channel?.boardId) ?? null;
  // A plot without a probe may hang on a board that is there.
  const others = board ? [] : present.boards;
  const form = useForm<PartsText, unknown, PartsRead>({
    resolver: zodResolver(partsSchema),
    defaultValues: {
      ...emptyParts,
      plotName: plot.name,
      plant: plot.plant,
      plotKind: plot.kind ?? '',
      // Who opens this for a plot without a probe has one in hand.
      hasProbe: true,
      probeLabel: probe?.label ?? '',
      probeKind: probe?.kind ?? 'capacitive stick',
      colour: probe?.colour ?? 'none',
      ...depthTyped(probe?.depthCm ?? USUAL_DEPTH_CM, parts.garden.units),
      pin: channel?.pin ?? '',
      streamName: channel?.streamName ?? emptyParts.streamName,
      ...(board
        ? {
            boardName: board.name,
            boardTraits: board.traits,
            adcBits: String(board.adcBits),
            supplyV: String(board.supplyV),
          }
        : { boardChoice: others[0]?.id ?? NEW_BOARD }),
      hasPump: line !== null,
      flowMlPerS: String(line?.flowMlPerS ?? 10),
    },
  });
  const save = async (read: PartsRead) => {
    if (
      await commit(
        `change ${plot.name}`,
        (garden) => ({
          garden: read.hasProbe
            ? editPlot(garden, plot.id, partsOf(read), Math.random)
            : namePlot(garden, plot.id, partsOf(read)),
        }),
        'The plot was changed.',
      )
    )
      onClose();
  };
  const remove = async () => {
    onClose();
    await commit(
      `remove ${plot.name}`,
      (garden) => ({ garden: removePlot(garden, plot.id) }),
      `${plot.name} was removed. Its readings are kept.`,
    );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={plot.name}
      description="The plot, its probe, its board and its pump. Calibration and limits stay."
    >
      <FormProvider {...form}>
        <form
          onSubmit={(event) => void form.handleSubmit(save)(event)}
          noValidate
          className="flex flex-col gap-5"
        >
          <PlotFields />
          <SoilField plot={plot} />
          {probe ? (
            <>
              <ProbeFields />
              <section className="border-t border-rule pt-4">
                <h3 className="mb-3 font-semibold">Its board, for every plot on it</h3>
                <BoardFields boards={[]} />
              </section>
              <PumpFields />
            </>
          ) : (
            <HasProbe label="Its board and probe are there now">
              <ProbeFields />
              <BoardFields boards={others} />
              <PumpFields />
            </HasProbe>
          )}
          <div className="flex flex-wrap gap-3">
            <Button type="submit" look="primary">
              Keep the changes
            </Button>
            <Button onClick={onClose}>Cancel</Button>
            <Button look="quiet" className="ml-auto" onClick={() => void remove()}>
              Remove this plot
            </Button>
          </div>
        </form>
      </FormProvider>
    </Dialog>
  );
}
