import { formatDuration } from '@plain-trowel/core/quantity/format';
import type { SketchSleep } from '@plain-trowel/core/sketch/plan';

/** What a sleeping board asks of whoever has it. */
export function Sleeps({ sleep: { everyS } }: { readonly sleep: SketchSleep }) {
  return (
    <p className="mt-2 max-w-[76ch] border-l-[3px] border-ink pl-3">
      It sleeps between readings and wakes every {formatDuration(everyS)}, as Plan, Parts wants it. Switched
      on or reset, and after each line that is typed, it stays awake for two minutes: that is when to connect,
      to test and to load. An order by hand lives two minutes, so most find it asleep. While it sleeps its
      pins are let go, and each pump’s switch must rest by its own resistor. Before each sleep it writes down
      what it knows, {Math.round(86_400 / everyS)} times a day; of each sleep it counts a twentieth less, for
      a timer may be fast, so pauses come out longer, never shorter. It was tried in the real interpreter, and
      on no board: when it goes to sleep its console says “# asleep”; measure what it takes then.
    </p>
  );
}

/** What connecting costs a program in C++, and what a listener could do. */
export function RestsFirst() {
  return (
    <p className="mt-3 max-w-[76ch] text-[14px]">
      This program reports to the gateway over Wi-Fi. While it joins and connects, the board’s library may
      hold everything else up for some seconds, so the network is left alone while a pump runs: no run is
      longer for it, and an order to stop from afar is heard only when the run has ended. A start, or a
      contact that is to go off, may come some seconds late. On an open network, and over plain HTTP or MQTT
      on any, whoever can listen reads the key and may send what this board could, and give it orders within
      its guards.
    </p>
  );
}
