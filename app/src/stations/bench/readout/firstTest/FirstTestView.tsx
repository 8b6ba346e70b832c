import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { Link } from 'react-router';
import { TEST_STEPS, type TestStep } from '@plain-trowel/core/garden/document/probeSchema';
import { DECIDING_KINDS } from '@plain-trowel/core/quantity/probeKind';
import type { Probe } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { sheetPath } from '../../../../frame/stations.ts';
import { Choice } from '../../../../ui/Choice.tsx';
import { WarmUpPanel } from './WarmUpPanel.tsx';
import { FirstTestSteps } from './FirstTestSteps.tsx';

/** Touch, air, water: whether a new probe does at all what it should, with the result kept beside it. */
export function FirstTestView({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const probes = garden.probes.filter((one) => one.plotId === plotId && DECIDING_KINDS.includes(one.kind));
  const [chosen, setChosen] = useState<string | null>(null);
  const probe = byId(probes, chosen) ?? probes[0];
  if (!probe)
    return (
      <p className="max-w-[60ch]">
        This plot has no probe that tells how wet the soil is. A thermometer is tested under Temperature.
      </p>
    );
  return (
    <>
      {probes.length > 1 && (
        <Choice
          legend="Probe"
          options={probes.map((one) => ({ value: one.id, label: one.label }))}
          value={probe.id}
          onChange={setChosen}
        />
      )}
      <h2>{headline(probe)}</h2>
      {(probe.firstTest.air === null || probe.firstTest.water === null) && <HandsFreeLink plotId={plotId} />}
      <FirstTestSteps key={probe.id} probe={probe} />
      <WarmUpPanel probe={probe} />
    </>
  );
}

/** Air and water are asked once: the hands-free run takes them for the test, side by side and the calibration. */
function HandsFreeLink({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  return (
    <p className="max-w-[66ch] text-soft">
      Air and water can be taken together with the calibration:{' '}
      <Link
        className="underline underline-offset-4"
        to={`${sheetPath(garden.id, 'bench', 'calibrate', plotId)}&run=hands-free`}
      >
        hands-free, in one pass
      </Link>
      .
    </p>
  );
}

function headline(probe: Probe): string {
  const missing = TEST_STEPS.filter((step: TestStep) => probe.firstTest[step] === null);
  return missing.length === 0
    ? `${probe.label} passed its first test`
    : `${probe.label}: ${TEST_STEPS.length - missing.length} of ${TEST_STEPS.length} seen, next ${missing[0] ?? ''}`;
}
