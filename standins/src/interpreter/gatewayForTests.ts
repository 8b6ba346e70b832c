/** A network with a gateway in it, as a board's sockets find it: bytes go in and out as slowly as is wanted, and what the gateway says is up to the test. */
import mqttPacket, { type Packet, type Parser } from 'mqtt-packet';
import type { NetWires } from './pyBoard.ts';

type Request = { readonly head: string; readonly body: string };
/** `answer` is what waits to be fetched; null: nothing. */
type Connection = { heard: string; answer: Buffer | null; isOver: boolean; parser: Parser };

export class GatewayOnANet {
  /** Every whole request, in order. */
  readonly requests: Request[] = [];
  joinedAs: readonly string[] | null = null;
  connectedTo: string[] = [];
  isReachable = true;
  isListening = true;
  /** Takes and gives so many bytes at a time; 0: it has gone quiet. */
  bytesAtOnce = 200;
  /** What it says to a request; null: nothing at all. */
  answer: (request: Request) => string | null = () => null;
  private readonly connections = new Map<number, Connection>();
  private next = 1;
  closed = 0;
  /** Over MQTT: everything that it was told, and whether it lets the board in. */
  readonly packets: Packet[] = [];
  letsIn = true;

  constructor(private readonly over: 'http' | 'mqtt' = 'http') {}

  readonly wires: NetWires = {
    join: (...as) => {
      this.joinedAs = as;
    },
    isJoined: () => this.isReachable && this.joinedAs !== null,
    connect: (host, port) => {
      this.connectedTo.push(`${host}:${port}`);
      if (!this.isListening) return null;
      const parser = mqttPacket.parser({ protocolVersion: 4 });
      const connection: Connection = { heard: '', answer: null, isOver: false, parser };
      parser.on('packet', (packet) => this.hearPacket(connection, packet));
      this.connections.set(this.next, connection);
      return this.next++;
    },
    send: (number, hex) => {
      const connection = this.connections.get(number);
      if (!connection || this.bytesAtOnce === 0) return null;
      const part = hex.slice(0, 2 * this.bytesAtOnce);
      const bytes = Buffer.from(part, 'hex');
      if (this.over === 'mqtt') connection.parser.parse(bytes);
      else this.hearText(connection, bytes.toString('utf8'));
      return bytes.length;
    },
    receive: (number, most) => {
      const connection = this.connections.get(number);
      if (!connection || this.bytesAtOnce === 0) return null;
      if (connection.answer === null || connection.answer.length === 0) return connection.isOver ? '' : null;
      const part = connection.answer.subarray(0, Math.min(most, this.bytesAtOnce));
      connection.answer = connection.answer.subarray(part.length);
      return part.toString('hex');
    },
    close: () => {
      this.closed += 1;
    },
  };

  private hearText(connection: Connection, text: string): void {
    connection.heard += text;
    const request = wholeRequest(connection.heard);
    if (!request) return;
    this.requests.push(request);
    const said = this.answer(request);
    if (said === null) return;
    connection.answer = Buffer.from(said);
    connection.isOver = true;
  }

  /** As a broker that answers each report on the topic beside it. */
  private hearPacket(connection: Connection, packet: Packet): void {
    const tell = (what: Packet) => {
      connection.answer = Buffer.concat([connection.answer ?? Buffer.alloc(0), mqttPacket.generate(what)]);
    };
    if (connection.isOver) return;
    this.packets.push(packet);
    if (packet.cmd === 'connect')
      tell({ cmd: 'connack', returnCode: this.letsIn ? 0 : 4, sessionPresent: false });
    if (packet.cmd === 'connect' && !this.letsIn) connection.isOver = true;
    if (packet.cmd === 'subscribe') tell({ cmd: 'suback', messageId: packet.messageId ?? 0, granted: [1] });
    if (packet.cmd !== 'publish') return;
    const request = { head: packet.topic, body: packet.payload.toString() };
    this.requests.push(request);
    const said = this.answer(request);
    if (said === null) {
      // Without room it is not acknowledged, and the connection ends.
      connection.isOver = true;
      return;
    }
    tell({ cmd: 'puback', messageId: packet.messageId ?? 0 });
    const topic = packet.topic.replace(/report$/, 'answer');
    tell({ cmd: 'publish', topic, payload: said, qos: 1, messageId: 7, dup: false, retain: false });
  }

  /** The report of the newest request, as its board wrote it. */
  get newest(): string {
    return this.requests.at(-1)?.body ?? '';
  }
}

function wholeRequest(text: string): Request | null {
  const at = text.indexOf('\r\n\r\n');
  const length = Number(/content-length: (\d+)/i.exec(text)?.[1]);
  const body = text.slice(at + 4);
  return at > 0 && Buffer.byteLength(body) >= length ? { head: text.slice(0, at), body } : null;
}

export const said = (status: number, body: unknown): string => {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  return `HTTP/1.1 ${status} Word\r\nContent-Type: application/json\r\nContent-Length: ${Buffer.byteLength(text)}\r\nConnection: close\r\n\r\n${text}`;
};
