import { useState } from 'react';
import { BUILT_IN_MAPS, mapOf } from '@plain-trowel/core/bus/registers';
import { Bus } from '@plain-trowel/standins/busProbe/bus';
import { BUS_SPEEDS, USUAL_SPEED, type BusSpeed } from '@plain-trowel/core/bus/timing';
import { setBusSpeed } from '@plain-trowel/core/garden/edits/bench';
import { BUS_FAULTS, newBusProbe, type BusFault } from '@plain-trowel/standins/busProbe/busProbe';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLiveTools } from '../../../../links/liveContext.ts';
import { openProblem, serialIsPossible } from '../../../../links/serialSource.ts';
import { standInPort } from '../../../../links/standInPort.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';

const SOME_FAULT = 0.2;

/** A USB adapter on a real bus, or a made-up bus in the page. */
export function BusConnect({ mapId }: { mapId: string }) {
  const { garden, commit } = useGarden();
  const { bus } = useLiveTools();
  const known = garden.probes.find((one) => one.bus)?.bus?.baud;
  const [chosen, setBaudRate] = useState<BusSpeed>(USUAL_SPEED);
  const baudRate = known ?? chosen;
  const setSpeed = (speed: BusSpeed) => {
    setBaudRate(speed);
    if (known !== undefined)
      void commit(
        'speed of the bus',
        (before) => ({ garden: setBusSpeed(before, speed) }),
        `The garden’s bus probes are taken to be set to ${speed} baud; the board’s program asks them at that speed.`,
      );
  };
  const [fault, setFault] = useState<BusFault>('none');
  const [problem, setProblem] = useState<string | null>(null);
  const openStandIn = async () => {
    const own = garden.probes.flatMap((probe) => (probe.bus ? [probe.bus] : []));
    const members = own.length > 0 ? own : [{ address: 1, mapId }];
    const probes = members.map((one, at) => ({
      ...newBusProbe(
        one.address,
        mapOf(garden.registerMaps, one.mapId) ?? BUILT_IN_MAPS[3] ?? NO_MAP,
        40 + at,
      ),
      fault,
      faultFrac: SOME_FAULT,
    }));
    await bus.connect(standInPort(new Bus(probes)), 9600, {
      label: `Stand-in bus, ${probes.length} ${probes.length === 1 ? 'probe' : 'probes'}`,
      simulated: true,
    });
  };
  const openReal = async () => {
    setProblem(null);
    let port: SerialPort;
    try {
      port = await navigator.serial.requestPort();
    } catch (error) {
      setProblem(
        error instanceof DOMException && error.name === 'NotFoundError'
          ? 'No port was chosen. Plug the adapter in, press the button again and pick its port.'
          : openProblem(error),
      );
      return;
    }
    try {
      await bus.connect(port, baudRate, { label: `Adapter at ${baudRate} baud`, simulated: false });
    } catch (error) {
      setProblem(openProblem(error));
    }
  };
  return (
    <section aria-label="Connect the bus" className="flex flex-col items-start gap-4">
      <h2>Which bus?</h2>
      <p className="max-w-[64ch]">
        Probes that speak Modbus RTU hang on a pair of wires, A and B. A USB adapter for RS-485 connects that
        pair to this machine; power the probes from their own supply. For learning there is a bus in the page.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <Field label="The stand-in’s fault, one answer in five">
          {(props) => (
            <select
              {...props}
              value={fault}
              onChange={(event) => setFault(BUS_FAULTS.find((one) => one === event.target.value) ?? 'none')}
            >
              {BUS_FAULTS.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Button look="primary" onClick={() => void openStandIn()}>
          Open the stand-in bus
        </Button>
      </div>
      <div className="flex flex-wrap items-end gap-4">
        <Field label={known === undefined ? 'Speed' : 'Speed that the probes are set to'} unit="baud">
          {(props) => (
            <select
              {...props}
              value={baudRate}
              onChange={(event) =>
                setSpeed(BUS_SPEEDS.find((one) => String(one) === event.target.value) ?? USUAL_SPEED)
              }
            >
              {BUS_SPEEDS.map((speed) => (
                <option key={speed} value={speed}>
                  {speed}
                </option>
              ))}
            </select>
          )}
        </Field>
        {serialIsPossible() && <Button onClick={() => void openReal()}>Choose the adapter’s port</Button>}
      </div>
      {!serialIsPossible() && (
        <p className="text-soft">
          This browser cannot open serial ports; a desktop browser with Web Serial can.
        </p>
      )}
      {problem !== null && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
    </section>
  );
}

const NO_MAP = { id: 'none', name: 'none', readFunction: 3 as const, fields: [], address: null };
