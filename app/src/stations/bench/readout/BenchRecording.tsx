import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { download, fileNameOf } from '../../../data/download.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { showToast } from '../../../ui/toasts.ts';

/** Writes the session down line by line, through a reload of the page, and hands it over as a file that can be played back. */
export function BenchRecording() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const running = live.benchRecording;
  const toggle = () => {
    if (!running) {
      session.startBench();
      return;
    }
    const text = session.stopBench();
    if (text === null) return;
    download(`${fileNameOf(garden.name)}.bench.ndjson`, text, 'application/x-ndjson');
    showToast({
      tone: 'done',
      text: `${formatNumber(running.lines)} lines saved as a bench recording. Play it back as a serial log.`,
    });
  };
  useKeys([{ key: 'w', does: 'Write the session down as a file, and save it', run: toggle }]);
  return (
    <>
      <Button look={running ? 'primary' : 'plain'} hint="W" onClick={toggle}>
        {running
          ? `Save ${formatNumber(running.lines)} lines, ${formatDuration((live.nowMs - running.sinceMs) / 1000)}`
          : 'Write it down'}
      </Button>
      {running?.isAtRisk && (
        <span className="text-[14px] text-handle">
          The browser has no room to keep more of it: save it before you load the page again.
        </span>
      )}
    </>
  );
}
