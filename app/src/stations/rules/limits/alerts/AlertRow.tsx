import type { AlertKind, AlertRule } from '@plain-trowel/core/control/alerts';
import { CellNumber } from '../../../../ui/CellNumber.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';
import { alertName } from '../../../../words/alertText.ts';
import { useShownUnit } from '../../../../data/useUnits.ts';

/** Unit of a hysteresis, and how many of the garden's units it is; null where a fact has none. */
const HYSTERESIS: Readonly<
  Record<AlertKind, { readonly unit: string; readonly per: number; readonly most: number } | null>
> = {
  dry: { unit: '%', per: 10, most: 50 },
  wet: { unit: '%', per: 10, most: 50 },
  hot: { unit: '°C', per: 10, most: 20 },
  cold: { unit: '°C', per: 10, most: 20 },
  'battery-low': { unit: 'V', per: 1000, most: 5 },
  'probe-fault': null,
  'out-of-soil': null,
  'silent-board': null,
  'tank-low': null,
  'frozen-charge': { unit: '°C', per: 10, most: 20 },
  'line-locked': null,
  recalibrate: null,
};
const NIGHT = { fromMinute: 22 * 60, toMinute: 7 * 60 };

export function AlertRow({
  rule,
  onChange,
}: {
  rule: AlertRule;
  onChange: (to: Partial<AlertRule>) => void;
}) {
  const name = alertName(rule.kind);
  const back = HYSTERESIS[rule.kind];
  const { unit } = useShownUnit(back?.unit ?? '', true);
  return (
    <tr>
      <td>
        <Check checked={rule.on} onChange={(on) => onChange({ on })}>
          <span className="sr-only">{name}: tell me</span>
        </Check>
      </td>
      <td className={rule.on ? 'font-semibold' : 'text-soft'}>{name}</td>
      <td className="text-right">
        <CellNumber
          label={`${name}: so for, minutes`}
          value={rule.holdOffS / 60}
          least={0}
          most={1440}
          decimals={1}
          onKeep={(value) => onChange({ holdOffS: Math.round((value ?? 0) * 60) })}
        />
      </td>
      <td className="text-right whitespace-nowrap">
        {back ? (
          <>
            <CellNumber
              label={`${name}: comes back by, ${unit}`}
              unit={back.unit}
              apart
              value={rule.hysteresis / back.per}
              least={0}
              most={back.most}
              decimals={1}
              onKeep={(value) => onChange({ hysteresis: Math.round((value ?? 0) * back.per) })}
            />{' '}
            <span className="inline-block w-6 text-left text-soft">{unit}</span>
          </>
        ) : (
          <span className="pr-8 text-soft">–</span>
        )}
      </td>
      <td className="text-right">
        <CellNumber
          label={`${name}: again after, hours; empty for once`}
          value={rule.repeatS === 0 ? null : rule.repeatS / 3600}
          least={0.1}
          most={720}
          decimals={1}
          onKeep={(value) => onChange({ repeatS: Math.round((value ?? 0) * 3600) })}
        />
      </td>
      <td>
        <span className="flex items-center gap-2">
          <Check
            checked={rule.quiet !== null}
            onChange={(isQuiet) => onChange({ quiet: isQuiet ? NIGHT : null })}
          >
            <span className="sr-only">{name}: keep quiet hours</span>
          </Check>
          {rule.quiet ? (
            (['fromMinute', 'toMinute'] as const).map((key) => (
              <TimeField
                key={key}
                label={`${name}: quiet ${key === 'fromMinute' ? 'from' : 'until'}`}
                minute={rule.quiet?.[key] ?? 0}
                onKeep={(minute) => rule.quiet && onChange({ quiet: { ...rule.quiet, [key]: minute } })}
              />
            ))
          ) : (
            <span className="text-soft">told at any hour</span>
          )}
        </span>
      </td>
    </tr>
  );
}
