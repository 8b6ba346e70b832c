import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { addLine, removeLine, setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { NameCell } from '../../../../ui/NameCell.tsx';

/** The line's name, another line beside it, and the line away. The last line of a plot goes under "Change this plot". */
export function LineFields({ line, isOnly }: { line: WaterLine; isOnly: boolean }) {
  const { garden, commit } = useGarden();
  return (
    <section aria-label="Water lines" className="mt-4 border-t border-rule pt-3">
      <h2>Water lines of this plot</h2>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        A zone without a probe can have a line of its own that follows this one: add it, then choose “Follow
        another line”.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Field label="Name" className="w-[240px]">
          {() => (
            <NameCell
              className="field w-full"
              label={`Name of ${line.name}`}
              value={line.name}
              onKeep={(name) =>
                void commit(`name of ${line.name}`, (before) => ({
                  garden: setWaterLine(before, line.id, { name }),
                }))
              }
            />
          )}
        </Field>
        <AddButton
          count={garden.waterLines.length}
          most={MOST.waterLines}
          what="water lines"
          onClick={() =>
            void commit(
              `another line beside ${line.name}`,
              (before) => ({ garden: addLine(before, line.plotId, Math.random) }),
              'Another water line was added. Choose it at the top of the sheet.',
            )
          }
        >
          Add another line
        </AddButton>
        {!isOnly && (
          <Button
            onClick={() =>
              void commit(
                `remove ${line.name}`,
                (before) => ({ garden: removeLine(before, line.id) }),
                `${line.name} was removed.`,
              )
            }
          >
            Remove this line
          </Button>
        )}
      </div>
    </section>
  );
}
