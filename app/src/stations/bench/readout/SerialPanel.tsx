import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { SERIAL_SPEEDS, serialIsPossible, SerialSource } from '../../../links/serialSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';

/** Opens a real board on a serial port. */
export function SerialPanel({ parts, onOpened }: { parts: PlotParts; onOpened: () => void }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const [baudRate, setBaudRate] = useState(115_200);
  const [boardId, setBoardId] = useState(parts.board?.id ?? garden.boards[0]?.id ?? '');
  const [problem, setProblem] = useState<string | null>(null);

  if (!serialIsPossible())
    return (
      <p className="max-w-[60ch]">
        This browser cannot open serial ports. Use a desktop browser with Web Serial, or let your board’s
        lines be written to a file and open that as a serial log.
      </p>
    );

  const open = async () => {
    setProblem(null);
    let port: SerialPort;
    try {
      port = await navigator.serial.requestPort();
    } catch {
      setProblem('No port was chosen. Plug the board in, press the button again and pick its port.');
      return;
    }
    const board = byId(garden.boards, boardId);
    await session.connect(new SerialSource(port, boardId, baudRate, board?.name ?? 'Board'));
    onOpened();
  };
  return (
    <>
      <p className="max-w-[60ch]">
        Plug the board into this machine. It should print a number, name=value pairs, columns or one JSON
        object a line, twice a second or so.
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
      <Button look="primary" onClick={() => void open()}>
        Choose the port
      </Button>
    </>
  );
}
