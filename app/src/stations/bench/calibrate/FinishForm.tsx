import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useState } from 'react';
import type { CurveKind } from '@plain-trowel/core/calibration/curve';
import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import { finishRun, setSoilFacts, versionsOf } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Field } from '../../../ui/Field.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { contextOf } from './useRun.ts';

const DAY_MS = 86_400_000;
const AGAIN = [
  { value: 0, label: 'no reminder' },
  { value: 90, label: 'in 3 months' },
  { value: 180, label: 'in 6 months' },
  { value: 365, label: 'in a year' },
] as const;

/** The last step: who, a note, when it is due again; then it is used, and never changed any more. */
export function FinishForm({
  parts,
  kind,
  needsReason,
  isRaw = false,
}: {
  parts: PlotParts;
  kind: CurveKind;
  /** Something stands against it that may be passed over only with a reason, in the note. */
  needsReason: boolean;
  /** Two cut-offs in raw counts: there will be no percent. */
  isRaw?: boolean;
}) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const channelId = parts.channel?.id ?? '';
  const [who, setWho] = useState(() => versionsOf(garden, channelId)[0]?.who ?? '');
  const [soil, setSoil] = useState(parts.plot.soil.name);
  const [note, setNote] = useState('');
  const [days, setDays] = useState<number>(180);
  const lacksReason = needsReason && note.trim() === '';
  const finish = () => {
    if (lacksReason) return;
    const live = session.getSnapshot();
    const nowMs = Math.round(live.nowMs);
    const nowIso = isoOf(nowMs);
    const finishing = {
      kind,
      who: who.trim(),
      note: note.trim(),
      recalibrateBy: days === 0 ? null : isoOf(nowMs + days * DAY_MS),
    };
    const simulated = live.source?.simulated ?? false;
    void commit(
      `calibration of ${parts.probe?.label ?? 'the probe'}`,
      (before) => {
        const known = setSoilFacts(before, parts.plot.id, { name: soil.trim() });
        const done = finishRun(known, channelId, contextOf(before, parts, nowMs), finishing, {
          random: Math.random,
          nowIso,
        });
        if (!done.ok) return { garden: before };
        const curve = curveOf(done.value.calibration);
        return {
          garden: done.value.garden,
          events: curve
            ? [
                {
                  atMs: nowMs,
                  plotId: parts.plot.id,
                  channelId: done.value.calibration.channelId,
                  simulated,
                  kind: 'calibrated',
                  calibrationId: done.value.calibration.id,
                  method: done.value.calibration.method,
                  percentKind: curve.percentKind,
                  dryCounts: curve.dryCounts,
                  wetCounts: curve.wetCounts,
                },
              ]
            : [],
        };
      },
      isRaw
        ? `${parts.probe?.label ?? 'The probe'} goes by its raw counts now.`
        : `${parts.probe?.label ?? 'The probe'} is calibrated; the sheets show its percent now.`,
    );
  };
  useKeys([{ key: 'f', does: 'Use this calibration', run: finish }]);
  return (
    <div className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-3 border-t border-rule pt-3">
      <Field label="Who" className="w-[150px]">
        {(props) => (
          <input {...props} value={who} maxLength={60} onChange={(event) => setWho(event.target.value)} />
        )}
      </Field>
      <Field label="Soil it was taken in" className="w-[190px]">
        {(props) => (
          <input {...props} value={soil} maxLength={400} onChange={(event) => setSoil(event.target.value)} />
        )}
      </Field>
      <Field
        label={needsReason ? 'Reason, to use it all the same' : 'Note'}
        className={needsReason ? 'w-full sm:w-[420px]' : 'w-[230px]'}
      >
        {(props) => (
          <input {...props} value={note} maxLength={400} onChange={(event) => setNote(event.target.value)} />
        )}
      </Field>
      <Choice legend="Due again" showLegend options={[...AGAIN]} value={days} onChange={setDays} />
      <Button look="primary" hint="F" disabled={lacksReason} onClick={finish}>
        Use this calibration
      </Button>
    </div>
  );
}
