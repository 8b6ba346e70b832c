import { Bus } from './bus.ts';
import { newBusProbe } from './busProbe.ts';
import { HELP, readBusOptions } from './options.ts';
import { serveSerial, serveTcp } from './serve.ts';

const read = readBusOptions(process.argv.slice(2));
if (!read.ok) {
  console.error(read.issue);
  process.exit(2);
}
if (read.value.kind === 'help') {
  console.log(HELP);
  process.exit(0);
}
const { where, addresses, map, fault, faultFrac } = read.value;
const bus = new Bus(
  addresses.map((address, at) => ({ ...newBusProbe(address, map, 77 + at), fault, faultFrac })),
);
const named = 'tcpPort' in where ? `TCP port ${where.tcpPort} of this machine` : where.device;
try {
  await ('tcpPort' in where ? serveTcp(bus, where.tcpPort) : serveSerial(bus, where.device, where.baudRate));
  console.log(
    `The bus probe stand-in answers on ${named}: address ${addresses.join(' and ')}, ${map.name}, fault: ${fault}.\nStop it with Ctrl+C.`,
  );
} catch (error) {
  console.error(
    `${named} could not be opened: ${error instanceof Error ? error.message : 'no reason given'}.`,
  );
  process.exit(1);
}
