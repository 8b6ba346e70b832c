import type { Language } from './sketchFiles.ts';

/** Of a program in C++ that reports. */
const FILL_IN = [
  'Open secrets.h in that folder and fill in the Wi-Fi, the gateway’s address and the board’s key, which Bench, Readout, Boards over the network makes. They stay on your computer and on the board: this page never sees them, so give the folder to nobody.',
  'The program speaks to the radio through WiFi.h, the library that comes with most boards’ package; where yours is called otherwise, change that one line in tell.h. Whether the board’s radio then does as it should, its console says: “# net reports”.',
];

/** The steps by hand, in words. */
export function Loading({
  language,
  hasSecrets,
}: {
  readonly language: Language;
  readonly hasSecrets: boolean;
}) {
  const steps =
    language === 'C++'
      ? [
          'Unpack the zip: its folder has the name of the first file, and all files stay together in it.',
          ...(hasSecrets ? FILL_IN : []),
          'Open the first file in the environment that you write for this board in, choose board and port, and let it compile.',
          'Take the pump’s supply off, upload, and look at the serial line at 115 200 baud: readings come every two seconds.',
          'Pull the probe’s plug and type “all”: it must say that the percent of the probe is unknown, and nothing may run. Only then connect the pump.',
        ]
      : [
          'Unpack the zip and copy main.py and the folder trowel_a into the board’s own folder, as they lie.',
          'Take the pump’s supply off, restart the board, and look at the serial line: readings come every two seconds.',
          'Pull the probe’s plug and type “all”: it must say that the percent of the probe is unknown, and nothing may run. Only then connect the pump.',
        ];
  return (
    <section aria-label="How it gets onto the board" className="mt-5 border-t border-rule pt-3">
      <h2>How it gets onto the board</h2>
      <ol className="mt-1 max-w-[72ch] list-decimal pl-5">
        {steps.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ol>
    </section>
  );
}
