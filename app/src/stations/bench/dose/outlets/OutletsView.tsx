import { byId } from '@plain-trowel/core/quantity/byId';
import { evennessOf } from '@plain-trowel/core/dosing/outlets';
import { workEvenness } from '@plain-trowel/core/dosing/workWater';
import { doseOf } from '@plain-trowel/core/garden/bind/contradictions';
import { sharesByPlot } from '@plain-trowel/core/garden/bind/shares';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatVolume } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { CatchCups } from './CatchCups.tsx';
import { OutletPicture } from './OutletPicture.tsx';
import { OutletTable } from './OutletTable.tsx';

/** Where a line's water goes: what each outlet gave into its cup, how even that is, and which plot gets what of a dose. */
export function OutletsView({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const measured = line.outlets.filter((one) => one.cupMl !== null);
  const even = evennessOf(measured.map((one) => one.cupMl ?? 0));
  const shares = sharesByPlot(line);
  const doseMl = doseOf(line.program) ?? 100;
  return (
    <>
      {even && shares && measured.length > 1 ? (
        <p className="max-w-[68ch] text-[17px]">
          Of {formatVolume(doseMl)},{' '}
          {shares.map((share, at) => (
            <span key={share.plotId ?? 'nowhere'}>
              {at > 0 && (at === shares.length - 1 ? ' and ' : ', ')}
              {byId(garden.plots, share.plotId)?.name ?? 'no plot'} gets{' '}
              <b className="num font-semibold">{formatVolume((doseMl * share.percent) / 100)}</b>
            </span>
          ))}
          . The driest outlet gets <WorkedNumber id="evenness" lead worked={workEvenness(even)} />
          {even.lowQuarterPercent < 70 ? ': poor. Look at its height, its tube and its filter.' : '.'}
        </p>
      ) : (
        <p className="max-w-[68ch] text-[16px]">
          Outlets are never equal. Put a cup under each, run the line once, and type in what each cup holds:
          then it shows what each plot really gets of a dose.
        </p>
      )}
      <OutletPicture line={line} even={even} />
      <OutletTable line={line} even={even} />
      <CatchCups line={line} />
    </>
  );
}
