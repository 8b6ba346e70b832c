import type { WaterLine } from '@plain-trowel/core/garden/schema';
import { leadersOf } from '@plain-trowel/core/garden/newProgram';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Check } from '../../../../ui/Check.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { LineNumber } from './LineNumber.tsx';
import { SlotsField } from './SlotsField.tsx';
import { useLine } from './useLine.ts';

const MOST_ML = 1_000_000;

/** The numbers of a line's program; which there are depends on its kind. Start and stop limits are the plot's, on the first view. */
export function ProgramFields({ line }: { line: WaterLine }) {
  const { keep } = useLine(line);
  const { program } = line;
  const row = 'mt-3 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4';
  switch (program.kind) {
    case 'alert-only':
      return null;
    case 'timer':
      return (
        <>
          <SlotsField line={line} program={program} />
          <div className={row}>
            <LineNumber
              line={line}
              label="Dose"
              unit="ml"
              value={program.doseMl}
              least={1}
              most={MOST_ML}
              change={(doseMl) => ({ program: { ...program, doseMl } })}
            />
          </div>
        </>
      );
    case 'veto':
      return (
        <>
          <SlotsField line={line} program={program} />
          <div className={row}>
            <LineNumber
              line={line}
              label="Dose"
              unit="ml"
              value={program.doseMl}
              least={1}
              most={MOST_ML}
              change={(doseMl) => ({ program: { ...program, doseMl } })}
            />
          </div>
          <Check
            className="mt-2"
            checked={program.interrupts}
            onChange={(interrupts) => keep('veto', { program: { ...program, interrupts } })}
          >
            The probe also ends a dose under way
          </Check>
        </>
      );
    case 'until-wet':
      return (
        <div className={row}>
          <LineNumber
            line={line}
            label="At most in one go"
            unit="ml"
            value={program.capMl}
            least={1}
            most={MOST_ML}
            change={(capMl) => ({ program: { ...program, capMl } })}
          />
        </div>
      );
    case 'single-dose':
      return (
        <div className={row}>
          <LineNumber
            line={line}
            label="Dose"
            unit="ml"
            value={program.doseMl}
            least={1}
            most={MOST_ML}
            change={(doseMl) => ({ program: { ...program, doseMl } })}
          />
          <LineNumber
            line={line}
            label="Not again within"
            unit="h"
            value={program.intervalS}
            per={3600}
            least={0.1}
            most={168}
            whole={false}
            change={(intervalS) => ({ program: { ...program, intervalS } })}
          />
        </div>
      );
    case 'pulse-soak':
      return (
        <div className={row}>
          <LineNumber
            line={line}
            label="Dose"
            unit="ml"
            value={program.pulseMl}
            least={1}
            most={MOST_ML}
            change={(pulseMl) => ({ program: { ...program, pulseMl } })}
          />
          <LineNumber
            line={line}
            label="Let it soak for"
            unit="min"
            value={program.soakS}
            per={60}
            least={1}
            most={1440}
            whole={false}
            decimals={0}
            change={(soakS) => ({ program: { ...program, soakS } })}
          />
          <LineNumber
            line={line}
            label="Doses in a round"
            unit="at most"
            value={program.mostPulses}
            least={1}
            most={20}
            change={(mostPulses) => ({ program: { ...program, mostPulses } })}
          />
          <LineNumber
            line={line}
            label="Then rest"
            unit="h"
            value={program.restS}
            per={3600}
            least={0.1}
            most={168}
            whole={false}
            change={(restS) => ({ program: { ...program, restS } })}
          />
        </div>
      );
    case 'follower':
      return <FollowerFields line={line} program={program} />;
  }
}

function FollowerFields({
  line,
  program,
}: {
  line: WaterLine;
  program: Extract<WaterLine['program'], { kind: 'follower' }>;
}) {
  const { garden } = useGarden();
  const { keep } = useLine(line);
  const leaders = leadersOf(garden, line).map((one) => ({ value: one.id, label: one.name }));
  return (
    <div className="mt-3 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
      <Select
        label="Leader"
        groups={[{ name: '', options: leaders }]}
        value={program.leaderId}
        onChange={(leaderId) => keep('leader', { program: { ...program, leaderId } })}
      />
      <LineNumber
        line={line}
        label="Runs for"
        unit="% of its time"
        value={program.sharePercent}
        least={10}
        most={300}
        change={(sharePercent) => ({ program: { ...program, sharePercent } })}
      />
      <LineNumber
        line={line}
        label="Takes every n-th run"
        unit="n"
        value={program.everyNth}
        least={1}
        most={7}
        change={(everyNth) => ({ program: { ...program, everyNth } })}
      />
    </div>
  );
}
