import type { Drill, Mistake, Week } from '@plain-trowel/core/calibration/drill';
import { formatDuration, formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';

const WHAT: Readonly<Record<Mistake, string>> = {
  'too-early': 'captured too early, while it was still on its way',
  'wrong-order': 'captured in the other condition: dry and wet exchanged',
  'wet-connector': 'captured with a wet connector',
  'past-the-line': 'held past its printed line',
  'other-supply': 'captured at another supply than the 3.3 V in use',
  'not-soaked': 'taken in a pot that was not soaked',
};
const INSTEAD: Readonly<Record<Mistake, string>> = {
  'too-early': 'Wait until it has stopped moving.',
  'wrong-order': 'Capture as dry what is dry.',
  'wet-connector': 'Wipe it, let it dry, capture again.',
  'past-the-line': 'Up to the line and no further.',
  'other-supply': 'Calibrate at the supply that will feed the probe.',
  'not-soaked': 'Pour until it drips.',
};

/** What a week by this week's calibration would have been. */
function weekText(week: Week, perfect: Week): string {
  const more = week.givenMl - perfect.givenMl;
  const parts = [
    more > 60 && `${formatVolume(more)} too much`,
    more < -60 && `${formatVolume(-more)} too little`,
    week.spiltMl > 0 && `${formatVolume(week.spiltMl)} of it over the rim`,
    week.dryHours > perfect.dryHours && `${formatDuration(week.dryHours * 3600)} too dry`,
    week.wetHours > perfect.wetHours && `${formatDuration(week.wetHours * 3600)} too wet`,
  ].filter((part) => part !== false);
  return parts.length > 0 ? parts.join(', ') : 'nothing that the plant would notice';
}

/** Which mistakes were made, what each alone would have cost in a week, and what to do instead. */
export function DrillVerdict({ drill }: { drill: Drill }) {
  const { mistakes, yours, perfect, offPercent } = drill;
  return (
    <section aria-label="Verdict" aria-live="polite" className="mt-4">
      <h2>
        {mistakes.length === 0
          ? 'No mistake: this calibration can be trusted.'
          : mistakes.length === 1
            ? 'One mistake'
            : `${mistakes.length} mistakes`}
      </h2>
      <p className="text-[14.5px]">
        The dry reference is off by{' '}
        <span className="num">{formatNumber(Math.abs(offPercent.dry), 1)} % of the span</span>, the wet one by{' '}
        <span className="num">{formatNumber(Math.abs(offPercent.wet), 1)} %</span>. In a week on a pot that
        drinks <span className="num">240 ml</span> a day: {weekText(yours, perfect)}.
      </p>
      {mistakes.length > 0 && (
        <div className="mt-2 overflow-x-auto">
          <table>
            <thead>
              <tr>
                <th>Reference</th>
                <th>What happened</th>
                <th>Alone, in a week</th>
                <th>Instead</th>
              </tr>
            </thead>
            <tbody>
              {mistakes.map(({ slot, mistake, week }) => (
                <tr key={`${slot} ${mistake}`}>
                  <td>{slot}</td>
                  <td>{WHAT[mistake]}</td>
                  <td>{weekText(week, perfect)}</td>
                  <td>{INSTEAD[mistake]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
