import { LEVEL_RAW, MOST, MOST_LEVEL_ML } from '@plain-trowel/core/quantity/bounds';
import { useState } from 'react';
import { reservoirOf, type ReservoirIssue } from '@plain-trowel/core/dosing/reservoir';
import { addLevel, removeLevel } from '@plain-trowel/core/garden/edits/reservoirs';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { LevelChart } from './LevelChart.tsx';
import { useShownUnit } from '../../../../data/useUnits.ts';
import { litresText } from '../../../../words/unitText.ts';

/** Why a level cannot stand beside the others. */
function issueText(issue: ReservoirIssue): string | null {
  switch (issue.kind) {
    case 'too-few':
      return null;
    case 'same-raw':
      return `Two volumes read ${issue.raw}. Measure one of them again.`;
    case 'not-monotone':
      return 'With more water the sensor would turn back. One of the levels is wrong; measure it again.';
  }
}

/** Why a typed level cannot be kept by itself. */
function outsideText(raw: number | null, litres: number | null): string | null {
  if (raw !== null && (raw < LEVEL_RAW.least || raw > LEVEL_RAW.most))
    return `From ${formatNumber(LEVEL_RAW.least)} to ${formatNumber(LEVEL_RAW.most)}.`;
  if (litres !== null && (litres < 0 || litres * 1000 > MOST_LEVEL_ML))
    return `Water from 0 to ${litresText(MOST_LEVEL_ML)}.`;
  return null;
}

/** Known levels of a reservoir: a raw value and the litres at it. A level that contradicts the others is not kept. */
export function LevelTable({ tank }: { tank: Reservoir }) {
  const { commit } = useGarden();
  const live = useLive();
  const present = tank.channelId === null ? undefined : live.present.get(tank.channelId);
  const [raw, setRaw] = useState('');
  const [litres, setLitres] = useState('');
  const number = (typed: string) => {
    const read = readNumber(typed.trim().replace(',', '.'));
    return read.kind === 'number' ? read.value : null;
  };
  const shown = useShownUnit('l');
  const typedVolume = number(litres);
  const [rawValue, volume] = [number(raw), typedVolume === null ? null : shown.store(typedVolume)];
  const outside = outsideText(rawValue, volume);
  const level =
    rawValue === null || volume === null || outside !== null
      ? null
      : { raw: rawValue, volumeMl: Math.round(volume * 1000) };
  const tried = level && reservoirOf([...tank.levels.filter((one) => one.raw !== level.raw), level]);
  const problem = outside ?? (tried && !tried.ok ? issueText(tried.issue) : null);
  const isNew = !tank.levels.some((one) => one.raw === rawValue);
  const keep = () => {
    if (!level || problem) return;
    void commit(`level of ${tank.name}`, (garden) => ({ garden: addLevel(garden, tank.id, level) })).then(
      (saved) => {
        if (!saved) return;
        setRaw('');
        setLitres('');
      },
    );
  };
  return (
    <div className="mt-3 grid gap-x-8 gap-y-3 lg:grid-cols-[1fr_300px]">
      <div className="min-w-0">
        {tank.levels.length > 0 && (
          <table className="[&_td]:align-middle">
            <thead>
              <tr>
                <th className="text-right">Sensor reads, raw</th>
                <th className="text-right">Water, l</th>
                <th className="pl-4">Remove</th>
              </tr>
            </thead>
            <tbody>
              {tank.levels.map((one) => (
                <tr key={one.raw}>
                  <td className="num text-right">{formatNumber(one.raw, one.raw % 1 === 0 ? 0 : 1)}</td>
                  <td className="num text-right">{formatNumber(one.volumeMl / 1000, 1)}</td>
                  <td className="pl-4">
                    <button
                      type="button"
                      className="press underline underline-offset-4"
                      onClick={() =>
                        void commit(
                          `remove a level of ${tank.name}`,
                          (garden) => ({ garden: removeLevel(garden, tank.id, one.raw) }),
                          'The level was removed.',
                        )
                      }
                    >
                      Remove<span className="sr-only"> the level at {one.raw}</span>
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <form
          className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <Field label="Sensor reads" unit="raw" className="w-[130px]" error={problem ?? undefined}>
            {(props) => (
              <input
                {...props}
                className="field num w-full text-right"
                inputMode="decimal"
                value={raw}
                onChange={(event) => setRaw(event.target.value)}
              />
            )}
          </Field>
          <Field label="Water at that reading" unit={shown.unit} className="w-[130px]">
            {(props) => (
              <input
                {...props}
                className="field num w-full text-right"
                inputMode="decimal"
                value={litres}
                onChange={(event) => setLitres(event.target.value)}
              />
            )}
          </Field>
          <AddButton
            count={isNew ? tank.levels.length : 0}
            most={MOST.levels}
            what="levels"
            type="submit"
            disabled={!level || problem !== null}
          >
            Keep this level
          </AddButton>
          {present && (
            <button
              type="button"
              className="press underline underline-offset-4"
              onClick={() => setRaw(String(Math.round(present.rawCounts)))}
            >
              Take what it reads now: <span className="num">{formatNumber(present.rawCounts)}</span>
            </button>
          )}
        </form>
      </div>
      <LevelChart tank={tank} />
    </div>
  );
}
