import { formatNumber } from '@plain-trowel/core/quantity/format';
import { byId } from '@plain-trowel/core/quantity/byId';
import { useEffect, useState } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { SERIAL_SPEEDS, serialIsPossible, SerialSource } from '../../../links/serialSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { PrintProgram } from './PrintProgram.tsx';

/** A port that this page was let at before and that is plugged in now; null while there is none, or several. */
function useKnownPort(): SerialPort | null {
  const [known, setKnown] = useState<SerialPort | null>(null);
  useEffect(() => {
    if (!serialIsPossible()) return;
    let left = false;
    // What an older browser does not have is no reason to fail.
    const ask = async () => {
      const ports = await navigator.serial.getPorts();
      if (!left) setKnown(ports.length === 1 ? (ports[0] ?? null) : null);
    };
    ask().catch(() => undefined);
    return () => {
      left = true;
    };
  }, []);
  return known;
}

/** Opens a real board on a serial port. */
export function SerialPanel({ parts, onOpened }: { parts: PlotParts; onOpened: () => void }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const [baudRate, setBaudRate] = useState(115_200);
  const [boardId, setBoardId] = useState(parts.board?.id ?? garden.boards[0]?.id ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const known = useKnownPort();

  if (!serialIsPossible())
    return (
      <p className="max-w-[60ch]">
        This browser cannot open serial ports. Use a desktop browser with Web Serial, or let your board’s
        lines be written to a file and open that as a serial log.
      </p>
    );

  const choose = async () => {
    setProblem(null);
    const port = await navigator.serial.requestPort().catch(() => null);
    if (port) await open(port);
    else setProblem('No port was chosen. Plug the board in, press the button again and pick its port.');
  };
  const open = async (port: SerialPort) => {
    const board = byId(garden.boards, boardId);
    await session.connect(new SerialSource(port, boardId, baudRate, board?.name ?? 'Board', garden));
    onOpened();
  };
  return (
    <>
      <p className="max-w-[60ch]">
        Plug the board into this machine. It should print its numbers, in whatever words, twice a second or
        so. Opening a port may restart the board, and a pump may twitch: unplug the pump first.
      </p>
      <div className="flex flex-wrap gap-5">
        <Field label="Which board is it?">
          {(props) => (
            <select {...props} value={boardId} onChange={(event) => setBoardId(event.target.value)}>
              {garden.boards.map((board) => (
                <option key={board.id} value={board.id}>
                  {board.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Speed" unit="baud" hint="As in the board’s program; the wrong speed gives garbage.">
          {(props) => (
            <select {...props} value={baudRate} onChange={(event) => setBaudRate(Number(event.target.value))}>
              {SERIAL_SPEEDS.map((speed) => (
                <option key={speed} value={speed}>
                  {speed}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
      {problem !== null && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {known !== null && (
          <Button look="primary" onClick={() => void open(known)}>
            Connect again at {formatNumber(baudRate)}
          </Button>
        )}
        <Button look={known === null ? 'primary' : 'plain'} onClick={() => void choose()}>
          Choose the port
        </Button>
      </div>
      <PrintProgram boardId={boardId} />
    </>
  );
}
