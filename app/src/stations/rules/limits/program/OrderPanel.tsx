import { useState } from 'react';
import { flowOf } from '@plain-trowel/core/garden/bind/engineParts';
import { orderOutlook } from '@plain-trowel/core/control/orderOutlook';
import { outlookText } from '../../../../words/orderText.ts';
import { byId } from '@plain-trowel/core/quantity/byId';
import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { useGarden } from '../../../../data/gardenContext.ts';
import { heardNow } from '../../../../links/heardNow.ts';
import { doseOf } from '@plain-trowel/core/garden/bind/contradictions';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Dialog } from '../../../../ui/Dialog.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { showToast } from '../../../../ui/toasts.ts';

/** Lines whose first order of this visit was asked about: once is enough. */
const asked = new Set<string>();

/** Orders by hand to a line whose board is a stand-in. They obey the guards too. A locked line is let go here, after a look at it. */
export function OrderPanel({ line }: { line: WaterLine }) {
  const { session } = useLiveTools();
  const orders = useLive(({ source }) => source?.orders ?? null);
  const [volumeMl, setVolume] = useState(Math.min(100, doseOf(line.program) ?? 100));
  const { garden } = useGarden();
  const live = useLive();
  const tank = byId(garden.reservoirs, line.tankId);
  const [isAsking, setAsking] = useState(false);
  const answer = useLive(({ answers }) => answers[line.id]);
  if (!orders || !answer) return null;
  const level = tank && tankNow(tank, heardNow(live));
  const beside = garden.waterLines.some(
    (one) => one.id !== line.id && one.boardId === line.boardId && live.answers[one.id]?.isOn,
  );
  const ofTank = !tank ? null : !level ? 'tank-unknown' : level.isLow ? 'tank-low' : null;
  const trouble = ofTank ?? (beside ? 'other-line-runs' : null);
  const outlook = orderOutlook(volumeMl, flowOf(line), line, answer.givenMl, trouble);
  const order = (given: { kind: 'water'; volumeMl: number } | { kind: 'stop' | 'unlock' }) => {
    orders.order({ lineId: line.id, ...given });
    session.refresh();
  };
  return (
    <section aria-label="Orders by hand" className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-2">
      {answer.isLocked ? (
        <div className="border-l-[3px] border-handle pl-3">
          <p role="alert" className="max-w-[62ch]">
            <b className="font-semibold">{line.name} is locked.</b> Several doses did not raise the reading:
            the tube is off, the pump is dry or the probe is out of the soil. Check all three before you
            unlock it.
          </p>
          <Button className="mt-2" look="primary" onClick={() => order({ kind: 'unlock' })}>
            I have looked: unlock it
          </Button>
        </div>
      ) : answer.isOn ? (
        <Button look="primary" onClick={() => order({ kind: 'stop' })}>
          Stop it now
        </Button>
      ) : (
        <>
          <div className="w-[130px]">
            <NumberField
              label="By hand"
              unit="ml"
              value={volumeMl}
              least={1}
              most={100_000}
              whole
              onKeep={setVolume}
            />
          </div>
          <p className="order-last basis-full text-[14px] text-soft">{outlookText(outlook)}</p>
          <Button
            disabled={outlook.runS === 0}
            onClick={() => {
              if (!asked.has(line.id)) {
                setAsking(true);
                return;
              }
              order({ kind: 'water', volumeMl });
              showToast({
                tone: 'done',
                text: `${line.name} was ordered to give ${volumeMl} ml. ${outlookText(outlook)}`,
              });
            }}
          >
            Give it now
          </Button>
          <Dialog
            open={isAsking}
            onClose={() => setAsking(false)}
            title={`Run ${line.name} now?`}
            description={`${outlookText(outlook)} Put the pot into a tray, keep the end of the tube above the water of the tank so that it cannot siphon, and stay while it runs.`}
          >
            <div className="flex flex-wrap gap-3">
              <Button
                look="primary"
                onClick={() => {
                  asked.add(line.id);
                  setAsking(false);
                  order({ kind: 'water', volumeMl });
                }}
              >
                Run it
              </Button>
              <Button onClick={() => setAsking(false)}>Not now</Button>
            </div>
          </Dialog>
        </>
      )}
    </section>
  );
}
