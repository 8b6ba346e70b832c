/** What a program in C++ knows of its network: who it is stands in the sketch, where the gateway is and its key in a file of their own. */
import { USUAL_PORT } from './netTold.ts';
import type { BoardPlan } from './plan.ts';
import { forString } from './safeText.ts';

/** Nothing of it stands in the program of a board that speaks over its serial line alone. */
export const networkText = ({ network }: BoardPlan): string =>
  network === null
    ? ''
    : `
// ---- Who it is to the gateway, and how often it reports at first, s. Where the gateway is, and its key, stand in secrets.h.
#define TROWEL_BOARD_ID "${forString(network.boardId)}"
#define TROWEL_TOPIC "trowel/${forString(network.gardenId)}/${forString(network.boardId)}/"
#define TROWEL_REPORT_EVERY_S ${network.everyS}
`;

/** What only the board may know, to be filled in by whoever compiles it: written empty, and no part of the program's name. */
export const cppSecrets = ({
  network,
}: BoardPlan): string => `// What only this board may know. Fill it in before you compile, and give this file to nobody: whoever has the key may speak as this board.
#define TROWEL_WIFI ""
#define TROWEL_WIFI_PASSWORD ""
// Where the gateway is: numbers, for a board that looks a name up stands still; and its port${network?.over === 'mqtt' ? ' for MQTT' : ''}.
#define TROWEL_GATEWAY_HOST "192.168.1.5"
#define TROWEL_GATEWAY_PORT ${USUAL_PORT[network?.over ?? 'http']}
// The board's key: made under Bench, Readout, boards over the network, and shown there once.
#define TROWEL_KEY ""
`;
