/**
 * The broker that boards may report to over MQTT. A report is acknowledged to its board (PUBACK) only when it is on disk: it is kept where the broker asks whether the packet
 * may be published at all. A board may publish its own reports and hear its own answers, and nothing else;
 * whoever reads along hears how plots stand and what alerts are told.
 */
import { createServer, type Server, type Socket } from 'node:net';
import { duplexPair, pipeline } from 'node:stream';
import { Aedes, type Client } from 'aedes';
import { MOST_REPORT_BYTES } from '@plain-trowel/core/protocol/report';
import type { BoardKey } from '../boards/keys.ts';
import type { Gateway } from '../gateway.ts';
import { refusalOf } from '../boards/refusals.ts';
import { PacketGuard } from './packetGuard.ts';
import { Outward } from './outward.ts';
import { answerTopic, isForReaders, reportTopic } from './topics.ts';

/** A report, its topic and its header. */
const MOST_PACKET_BYTES = MOST_REPORT_BYTES + 300;
/** Boards that may be connected at the same time, and those of one address. */
const MOST_CLIENTS = 2000;
/** MQTT 3.1.1, 3.2.2.3. */
const BAD_PASSWORD = 4;

/** Whoever reads along is called so. */
const READER_USER = 'reader';

const mayHear = (who: BoardKey, topic: string): boolean =>
  who.reads ? isForReaders(who.gardenId, topic) : topic === answerTopic(who);

export type Broker = {
  readonly server: Server;
  /** Says at once what has changed of how plots stand; else it is looked every two seconds. */
  readonly look: () => void;
  readonly close: () => Promise<void>;
};

export async function createBroker({
  intake,
  keys,
  teller,
  noteHeard,
}: Pick<Gateway, 'intake' | 'keys' | 'teller' | 'noteHeard'>): Promise<Broker> {
  const held = new WeakMap<Client, string>();
  /** Whose connection it is, by the key that it came in with: one that was cancelled since opens nothing any more. */
  const boardOf = (client: Client | null): BoardKey | null =>
    keys.boardOf((client && held.get(client)) ?? '');
  const aedes = await Aedes.createBroker({
    connectTimeout: 10_000,
    keepaliveLimit: 3600,
    authenticate: (client, user, password, done) => {
      const board = password ? keys.boardOf(password.toString()) : null;
      if (board && (board.reads ? READER_USER : board.boardId) === user) {
        held.set(client, password?.toString() ?? '');
        done(null, true);
        return;
      }
      noteHeard('no-key');
      done(Object.assign(new Error('No key of a board.'), { returnCode: BAD_PASSWORD }), false);
    },
    authorizePublish: (client, packet, done) => {
      const board = boardOf(client);
      if (!board) {
        // What the broker says itself; a client that was let in has a board.
        done(client ? new Error('Nobody.') : null);
        return;
      }
      if (board.reads || packet.topic !== reportTopic(board)) {
        done(new Error('A board publishes its own reports only.'));
        return;
      }
      packet.retain = false;
      const text = packet.payload.toString();
      const tell = (what: object) =>
        aedes.publish(
          {
            cmd: 'publish',
            topic: answerTopic(board),
            payload: JSON.stringify(what),
            qos: 1,
            retain: false,
            dup: false,
          },
          () => undefined,
        );
      intake.hear(board, text, { kind: 'own' }).then(
        (heard) => {
          noteHeard(heard.kind);
          if (heard.kind === 'answered') tell(heard.answer);
          else tell({ error: refusalOf(heard).error });
          // Without room nothing was kept: not acknowledged, so that the board sends it again. What cannot be read would come again for ever.
          done(heard.kind === 'full' ? new Error('No room.') : null);
        },
        () => done(new Error('The report could not be kept.')),
      );
    },
    authorizeSubscribe: (client, subscription, done) => {
      const board = boardOf(client);
      done(null, board && mayHear(board, subscription.topic) ? subscription : null);
    },
    // Reports are for the gateway; no board hears another.
    authorizeForward: (client, packet) => {
      const board = boardOf(client);
      return board && mayHear(board, packet.topic) ? packet : null;
    },
  });
  const outward = new Outward(teller, (topic, payload, retain) => {
    aedes.publish({ cmd: 'publish', topic, payload, qos: 0, retain, dup: false }, () => undefined);
  });
  aedes.on('clientError', () => undefined);
  aedes.on('connectionError', () => undefined);
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    if (sockets.size >= MOST_CLIENTS) {
      socket.destroy();
      return;
    }
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
    socket.setNoDelay(true);
    const [inner, outer] = duplexPair();
    // Whichever end lets go, the other is let go as well.
    inner.once('close', () => socket.destroy());
    pipeline(socket, new PacketGuard(MOST_PACKET_BYTES), outer, socket, () => {
      socket.destroy();
      inner.destroy();
    });
    aedes.handle(inner);
  });
  const close = async () => {
    outward.close();
    for (const socket of sockets) socket.destroy();
    await new Promise<void>((done) => {
      aedes.close(() => done());
    });
    await new Promise<void>((done) => {
      server.close(() => done());
    });
  };
  return { server, look: () => outward.look(), close };
}
