import { useState } from 'react';
import { certificateCsv, certificateJson, certificateOf } from '@plain-trowel/core/garden/bind/certificate';
import { setRecalibrateBy } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { download, fileNameOf } from '../../../../data/download.ts';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { CertificatePage } from './CertificatePage.tsx';
import { saveReminders } from '../../../../data/reminderFile.ts';

/** The certificate of a version: on the screen, on paper, as a file; and the day on which it is due again. */
export function CertificateView({ parts, calibration }: { parts: PlotParts; calibration: Calibration }) {
  const { garden, commit } = useGarden();
  const [open, setOpen] = useState(false);
  const certificate = certificateOf(garden, calibration);
  if (!certificate) return null;
  const name = `${fileNameOf(parts.probe?.label ?? 'probe')}.${calibration.madeAt.slice(0, 10)}.calibration`;
  const due = calibration.recalibrateBy;
  return (
    <section aria-label="Certificate" className="mt-5 border-t border-rule pt-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <h2 className="mr-auto">Certificate and reminder</h2>
        <Field label="Due again on" className="no-print w-[170px]">
          {(props) => (
            <input
              {...props}
              type="date"
              defaultValue={due?.slice(0, 10) ?? ''}
              onChange={(event) => {
                const day = event.target.value;
                void commit('day of the next calibration', (before) => ({
                  garden: setRecalibrateBy(before, calibration.id, day ? `${day}T09:00:00Z` : null),
                }));
              }}
            />
          )}
        </Field>
        <span className="no-print flex flex-wrap gap-2">
          <Button disabled={due === null} onClick={() => saveReminders(garden, [calibration])}>
            Reminder as iCalendar
          </Button>
          <Button onClick={() => download(`${name}.json`, certificateJson(certificate), 'application/json')}>
            Save as JSON
          </Button>
          <Button onClick={() => download(`${name}.csv`, certificateCsv(certificate), 'text/csv')}>
            Save as CSV
          </Button>
          <Button onClick={() => setOpen(!open)}>{open ? 'Fold the paper' : 'Show the paper'}</Button>
          {open && (
            <Button look="primary" onClick={() => window.print()}>
              Print
            </Button>
          )}
        </span>
      </div>
      {open && (
        <div className="sheet-stack paper-A4 mt-3">
          <CertificatePage certificate={certificate} timeZone={garden.timeZone} />
        </div>
      )}
    </section>
  );
}
