import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useState } from 'react';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import type { Correction } from '@plain-trowel/core/temperature/correction';
import { fromBeta, fromThreePoints, type ThermistorPoint } from '@plain-trowel/core/temperature/thermistor';
import { useLive } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { threePointText } from '../../../../words/correctionText.ts';

type Side = 'ground' | 'supply';
const START: readonly [ThermistorPoint, ThermistorPoint, ThermistorPoint] = [
  { temperatureC: 0, ohm: 32_650 },
  { temperatureC: 25, ohm: 10_000 },
  { temperatureC: 50, ohm: 3603 },
];

/** A thermistor's curve, by the beta of its bag or through three measured points. */
export function ThermistorForm({
  channel,
  onKeep,
}: {
  channel: Channel;
  onKeep: (correction: Correction) => void;
}) {
  const live = useLive();
  const held = channel.correction.kind === 'thermistor' ? channel.correction : null;
  const [by, setBy] = useState<'beta' | 'points'>('beta');
  const [side, setSide] = useState<Side>(held?.side ?? 'ground');
  const [fixedOhm, setFixedOhm] = useState(held?.fixedOhm ?? 10_000);
  const [r25Ohm, setR25Ohm] = useState(10_000);
  const [betaK, setBetaK] = useState(3950);
  const [points, setPoints] = useState(START);
  const fit = by === 'points' ? fromThreePoints(points) : null;
  const curve = by === 'beta' ? fromBeta({ r25Ohm, betaK }) : fit?.ok ? fit.value : null;
  const change = (at: number, part: Partial<ThermistorPoint>) => {
    const [a, b, c] = points.map((one, place) => (place === at ? { ...one, ...part } : one));
    if (a && b && c) setPoints([a, b, c]);
  };
  const field = (
    label: string,
    unit: string,
    value: number,
    least: number,
    most: number,
    set: (value: number) => void,
  ) => (
    <div className="w-[150px]">
      <NumberField
        label={label}
        unit={unit}
        value={value}
        least={least}
        most={most}
        whole={false}
        decimals={unit === '°C' ? 1 : 0}
        onKeep={set}
      />
    </div>
  );
  return (
    <div className="mt-2 flex flex-col items-start gap-3">
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          legend="By"
          options={[
            { value: 'beta' as const, label: 'R25 and beta' },
            { value: 'points' as const, label: 'three points' },
          ]}
          value={by}
          onChange={setBy}
        />
        <Choice<Side>
          legend="The thermistor sits"
          showLegend
          options={[
            { value: 'ground', label: 'to ground' },
            { value: 'supply', label: 'to supply' },
          ]}
          value={side}
          onChange={setSide}
        />
        {field('Fixed resistor', 'Ω', fixedOhm, 1, 1e8, setFixedOhm)}
      </div>
      <div className="flex flex-wrap gap-4">
        {by === 'beta' ? (
          <>
            {field('Resistance at 25 °C', 'Ω', r25Ohm, 1, 1e8, setR25Ohm)}
            {field('Beta', 'K', betaK, 1000, 8000, setBetaK)}
          </>
        ) : (
          points.map((point, at) => (
            <div key={at} className="flex flex-col gap-2">
              {field(`Point ${at + 1}, temperature`, '°C', point.temperatureC, -50, 150, (temperatureC) =>
                change(at, { temperatureC }),
              )}
              {field(`Point ${at + 1}, resistance`, 'Ω', point.ohm, 1, 1e8, (ohm) => change(at, { ohm }))}
            </div>
          ))
        )}
      </div>
      {fit && !fit.ok && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {threePointText(fit.issue)}
        </p>
      )}
      <Button
        look="primary"
        disabled={!curve}
        onClick={() =>
          curve &&
          onKeep({
            kind: 'thermistor',
            ...curve,
            fixedOhm,
            side,
            offset: 0,
            madeAt: isoOf(live.nowMs),
            against: by === 'beta' ? 'R25 and beta' : 'three measured points',
          })
        }
      >
        Use this curve
      </Button>
    </div>
  );
}
