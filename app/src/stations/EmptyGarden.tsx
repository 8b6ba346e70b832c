const WHAT = {
  readout: 'the raw numbers of a probe, as they come',
  calibrate: 'the two references of a probe and what its percent means',
  dose: 'how long the pump must run for 100 ml',
  limits: 'where water starts and stops, and what the pump answers',
  sketch: 'the program of a board, written from the garden',
  today: 'what needs you now, and how every plot stands',
  log: 'what was read and what happened',
} as const;

/** A sheet of a garden without plots: what will stand here, and the first step. */
export function EmptyGarden({ what }: { what: keyof typeof WHAT }) {
  return (
    <>
      <h1>No plot yet</h1>
      <p className="mt-1 text-soft">
        This sheet will show {WHAT[what]}. First add a plot: press{' '}
        <b className="font-semibold text-ink">Add a plot</b> under the labels.
      </p>
    </>
  );
}
