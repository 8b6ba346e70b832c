import { useState } from 'react';
import { Link } from 'react-router';
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { byId } from '@plain-trowel/core/quantity/byId';
import { firstSteps, type FirstStep } from '@plain-trowel/core/garden/bind/firstHour';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useGarden } from '../../../../data/gardenContext.ts';
import { sheetPath } from '../../../../frame/stations.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { heardNow } from '../../../../links/heardNow.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { Dialog } from '../../../../ui/Dialog.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { FIRST_STEPS, mayLandText } from '../../../../words/firstHourText.ts';
import { stateWord } from '@plain-trowel/core/telling/plotWords';

/** Asked once before a line waters by itself: what may land, and what was seen of the pump. */
export function ArmDialog({ line, onClose }: { line: WaterLine; onClose: () => void }) {
  const { commit } = useGarden();
  const [reason, setReason] = useState(line.firstHour.overruled);
  const steps = firstSteps(line);
  const isSeen = steps.every((step) => step.isDone);
  const arm = () => {
    const firstHour = { ...line.firstHour, overruled: isSeen ? '' : reason.trim() };
    void commit(`switch on ${line.name}`, (garden) => ({
      garden: setWaterLine(garden, line.id, { automatic: true, firstHour }),
    })).then(onClose);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Let ${line.name} water by itself?`}
      description={mayLandText(line)}
    >
      <h3 className="font-semibold">The first hour with this pump</h3>
      <ul className="mt-1">
        {steps.map((step) => (
          <Step key={step.id} line={line} step={step} />
        ))}
      </ul>
      <Heard line={line} />
      {!isSeen && (
        <Field
          label="Not everything was seen. Why may it water all the same?"
          className="mt-3 w-full"
          hint="Kept with the line, so that the next person knows."
        >
          {(props) => (
            <input
              {...props}
              maxLength={400}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          )}
        </Field>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="primary" disabled={!isSeen && reason.trim() === ''} onClick={arm}>
          Let it water by itself
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
    </Dialog>
  );
}

function Step({ line, step }: { line: WaterLine; step: FirstStep }) {
  const { garden, commit } = useGarden();
  const { title, doing } = FIRST_STEPS[step.id];
  const { id } = step;
  return (
    <li className="border-b border-rule py-1.5">
      {id === 'jug' ? (
        <p className="font-semibold">
          {step.isDone ? '✓ ' : '– '}
          {title}
        </p>
      ) : (
        <Check
          checked={step.isDone}
          onChange={(isDone) =>
            void commit(`first hour of ${line.name}`, (before) => ({
              garden: setWaterLine(before, line.id, {
                firstHour: { ...line.firstHour, [id]: isDone ? isoOf(Date.now()) : null },
              }),
            }))
          }
        >
          <b className="font-semibold">{title}</b>
        </Check>
      )}
      <p className="text-[14px] text-soft">
        {doing}{' '}
        {id === 'jug' && !step.isDone && (
          <Link
            className="underline underline-offset-4"
            to={sheetPath(garden.id, 'bench', 'dose', line.plotId)}
          >
            Measure it on Bench, Dose
          </Link>
        )}
      </p>
    </li>
  );
}

/** What probe and tank say right now, so that a refusal can be seen while the probe is in the hand. */
function Heard({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const parts = plotParts(garden, line.plotId);
  const tank = byId(garden.reservoirs, line.tankId);
  if (!live.source || !parts) return null;
  const { state, words } = decidedView(garden, parts, live, stored);
  const level = tank && tankNow(tank, heardNow(live));
  return (
    <p className="mt-2 text-[14.5px]" aria-live="polite">
      <span className="text-soft">Right now: </span>
      {usesProbe(line.program.kind) &&
        `the probe says “${stateWord(state, words)}”${isUnknown(state) ? ', so nothing would start by it' : ''}. `}
      {tank &&
        `${tank.name} is ${level === null ? 'unknown, so nothing would run' : level?.isLow ? 'low, so nothing would run' : 'above its minimum'}.`}
    </p>
  );
}
