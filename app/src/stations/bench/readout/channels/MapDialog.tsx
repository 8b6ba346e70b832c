import { useState } from 'react';
import { mapStream, type StreamOwner } from '@plain-trowel/core/garden/edits/bench';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { PROBE_KINDS, type ProbeKind } from '@plain-trowel/core/quantity/probeKind';
import { OF_BOARD, QUANTITIES, type Quantity } from '@plain-trowel/core/quantity/quantities';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { COLOUR_TAGS, type ColourTag } from '@plain-trowel/core/wiring/netlist';
import { useGarden } from '../../../../data/gardenContext.ts';
import type { StreamInfo } from '@plain-trowel/core/live/streams';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { Dialog } from '../../../../ui/Dialog.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { useShownUnit } from '../../../../data/useUnits.ts';
import { depthText } from '../../../../words/unitText.ts';

type Kind = StreamOwner['kind'];
const usualQuantity = (kind: ProbeKind): Quantity =>
  kind === 'thermistor' || kind === 'digital thermometer' ? 'soil temperature' : 'moisture';

/** Says once what a name in a board's stream is. */
export default function MapDialog({ stream, onClose }: { stream: StreamInfo; onClose: () => void }) {
  const { garden, commit } = useGarden();
  const [kind, setKind] = useState<Kind>(garden.plots.length > 0 ? 'new probe' : 'board');
  const [channelId, setChannelId] = useState(garden.channels[0]?.id ?? '');
  const [probeId, setProbeId] = useState(garden.probes[0]?.id ?? '');
  const [plotId, setPlotId] = useState(garden.plots[0]?.id ?? '');
  const [label, setLabel] = useState(stream.name.slice(0, 20));
  const [probeKind, setProbeKind] = useState<ProbeKind>('capacitive stick');
  const [colour, setColour] = useState<ColourTag>('none');
  const depthUnit = useShownUnit('cm');
  const [depth, setDepth] = useState(() => String(Number(depthUnit.show(8).toFixed(1))));
  const [quantity, setQuantity] = useState<Quantity | null>(null);
  const read = readNumber(depth.replace(',', '.'));
  const typedCm = read.kind === 'number' ? depthUnit.store(read.value) : null;
  const depthCm = typedCm !== null && typedCm >= 0 && typedCm <= 300 ? typedCm : null;
  const quantities = kind === 'board' ? OF_BOARD : QUANTITIES;
  const usual =
    kind === 'board'
      ? 'battery voltage'
      : kind === 'new probe'
        ? usualQuantity(probeKind)
        : 'soil temperature';
  const chosen = quantity !== null && quantities.includes(quantity) ? quantity : usual;
  const owner = ownerOf();
  function ownerOf(): StreamOwner | null {
    switch (kind) {
      case 'channel':
        return channelId === '' ? null : { kind, channelId };
      case 'probe':
        return probeId === '' ? null : { kind, probeId, quantity: chosen };
      case 'board':
        return label.trim() === '' ? null : { kind, label: label.trim(), quantity: chosen };
      case 'new probe':
        return label.trim() === '' || depthCm === null || plotId === ''
          ? null
          : { kind, plotId, label: label.trim(), probeKind, colour, depthCm, quantity: chosen };
    }
  }
  const keep = () => {
    if (!owner) return;
    void commit(
      `say what ${stream.name} is`,
      (before) => ({ garden: mapStream(before, stream, owner, Math.random) }),
      `${stream.name} is known now.`,
    ).then((saved) => saved && onClose());
  };
  const select = (
    name: string,
    value: string,
    options: readonly (readonly [string, string])[],
    set: (value: string) => void,
  ) => (
    <Field label={name}>
      {(props) => (
        <select {...props} value={value} onChange={(event) => set(event.target.value)}>
          {options.map(([id, shown]) => (
            <option key={id} value={id}>
              {shown}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
  const same = <T extends string>(list: readonly T[]) => list.map((one) => [one, one] as const);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`What is “${stream.name}”?`}
      description={`The board prints ${stream.name} = ${stream.last}. Say it once; the readings go there from then on.`}
    >
      <div className="flex flex-col items-start gap-4">
        <Choice<Kind>
          legend="It belongs to"
          options={[
            { value: 'new probe', label: 'a new probe', disabled: garden.plots.length === 0 },
            { value: 'probe', label: 'a probe that is here', disabled: garden.probes.length === 0 },
            { value: 'channel', label: 'a channel that is here', disabled: garden.channels.length === 0 },
            { value: 'board', label: 'the board itself' },
          ]}
          value={kind}
          onChange={setKind}
        />
        <div className="grid w-full gap-4 sm:grid-cols-2">
          {kind === 'channel' &&
            select(
              'Channel',
              channelId,
              garden.channels.map((one) => [one.id, channelName(garden, one)] as const),
              setChannelId,
            )}
          {kind === 'probe' &&
            select(
              'Probe',
              probeId,
              garden.probes.map((one) => [one.id, one.label] as const),
              setProbeId,
            )}
          {kind === 'new probe' &&
            select(
              'Plot',
              plotId,
              garden.plots.map((one) => [one.id, one.name] as const),
              setPlotId,
            )}
          {(kind === 'new probe' || kind === 'board') && (
            <Field label="Label" error={label.trim() === '' ? 'Give it a label.' : undefined}>
              {(props) => (
                <input
                  {...props}
                  value={label}
                  maxLength={60}
                  onChange={(event) => setLabel(event.target.value)}
                />
              )}
            </Field>
          )}
          {kind === 'new probe' && (
            <>
              {select('Kind of probe', probeKind, same(PROBE_KINDS), (value) =>
                setProbeKind(PROBE_KINDS.find((one) => one === value) ?? 'capacitive stick'),
              )}
              {select('Tag', colour, same(COLOUR_TAGS), (value) =>
                setColour(COLOUR_TAGS.find((one) => one === value) ?? 'none'),
              )}
              <Field
                label="Depth"
                unit={depthUnit.unit}
                error={depthCm === null ? `From 0 to ${depthText(300)}.` : undefined}
              >
                {(props) => (
                  <input
                    {...props}
                    inputMode="decimal"
                    value={depth}
                    onChange={(event) => setDepth(event.target.value)}
                  />
                )}
              </Field>
            </>
          )}
          {kind !== 'channel' &&
            select('It measures', chosen, same(quantities), (value) =>
              setQuantity(QUANTITIES.find((one) => one === value) ?? null),
            )}
        </div>
        <div className="flex gap-3">
          <Button look="primary" disabled={!owner} onClick={keep}>
            That is what it is
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
