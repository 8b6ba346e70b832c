import type { SavedEdge } from '@plain-trowel/core/garden/document/contactSchema';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';

const KINDS = [
  { value: 'clock', label: 'at a time' },
  { value: 'sunrise', label: 'by sunrise' },
  { value: 'sunset', label: 'by sunset' },
] as const;

/** A moment of the day: by the clock, or so long before or after sunrise or sunset. */
export function EdgeField({
  label,
  edge,
  onKeep,
}: {
  label: string;
  edge: SavedEdge;
  onKeep: (edge: SavedEdge) => void;
}) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Select
        label={label}
        className="w-[130px]"
        groups={[{ name: '', options: KINDS }]}
        value={edge.by}
        onChange={(by) => onKeep(by === 'clock' ? { by, minute: 12 * 60 } : { by, minute: 0 })}
      />
      {edge.by === 'clock' ? (
        <TimeField
          label={`${label}, time`}
          minute={edge.minute}
          onKeep={(minute) => onKeep({ by: 'clock', minute })}
        />
      ) : (
        <span className="w-[170px]">
          <NumberField
            label="Minutes after (− before)"
            unit="min"
            value={edge.minute}
            least={-720}
            most={720}
            whole
            onKeep={(minute) => onKeep({ by: edge.by, minute })}
          />
        </span>
      )}
    </div>
  );
}
