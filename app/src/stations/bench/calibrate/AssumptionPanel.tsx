import { useState } from 'react';
import {
  ASSUMPTIONS,
  assumedOf,
  assumptionsOf,
  keyOfAssumption,
  type AssumptionName,
} from '@plain-trowel/core/calibration/assumptions';
import { setRunInput } from '@plain-trowel/core/garden/edits/calibrations';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';

type Of = Pick<Run, 'channelId' | 'method' | 'inputs'>;

/** The numbers that the ± goes by and no capture shows; a person who knows better sets their own. */
export function AssumptionPanel({
  run,
  isFixed = false,
}: {
  run: Of;
  /** A calibration in use: the numbers that it was made with. */
  isFixed?: boolean;
}) {
  const [open, setOpen] = useState(false);
  const names = assumptionsOf(run.method);
  const own = names.filter((name) => run.inputs[keyOfAssumption(name)] !== undefined);
  return (
    <section aria-label="What the ± takes for granted" className="mt-3">
      <button
        type="button"
        aria-expanded={open}
        className="press text-[14px] underline underline-offset-4"
        onClick={() => setOpen(!open)}
      >
        What the ± takes for granted
        {own.length > 0 && `, ${own.length} of it set by you`}
      </button>
      {open && (
        <>
          <p className="mt-1 max-w-[72ch] text-[14px] text-soft">
            No capture shows these. They are standard deviations: of three probes, one is further off. The
            usual numbers held the truth within the ± for 95 of 100 made-up probes, in soils and seasons that
            keep none of them.
          </p>
          <div className="mt-1.5 flex flex-col gap-2">
            {names.map((name) => (
              <Row key={name} run={run} name={name} isFixed={isFixed} />
            ))}
          </div>
        </>
      )}
    </section>
  );
}

function Row({ run, name, isFixed }: { run: Of; name: AssumptionName; isFixed: boolean }) {
  const { commit } = useGarden();
  const { label, unit, usual, least, most, from } = ASSUMPTIONS[name];
  const key = keyOfAssumption(name);
  const keep = (value: number | null) =>
    void commit(label, (garden) => ({ garden: setRunInput(garden, run.channelId, key, value) }));
  return (
    <div className="grid gap-x-4 gap-y-1 border-b border-rule pb-1.5 sm:grid-cols-[240px_1fr]">
      <span className="flex items-center gap-2 self-start">
        <span className="w-[76px] shrink-0">
          {isFixed ? (
            <span className="num block text-right">{formatNumber(assumedOf(run.inputs)[name], 2)}</span>
          ) : (
            <CellNumber
              label={label}
              value={assumedOf(run.inputs)[name]}
              least={least}
              most={most}
              decimals={2}
              onKeep={keep}
            />
          )}
        </span>
        <span className="text-[13.5px] text-soft">{unit}</span>
      </span>
      <p className="text-[13.5px] text-soft">
        <b className="block text-[14px] font-medium text-ink">{label}</b>
        {from}{' '}
        {!isFixed && run.inputs[key] !== undefined && (
          <Button look="quiet" onClick={() => keep(null)}>
            Back to the usual {usual}
          </Button>
        )}
      </p>
    </div>
  );
}
