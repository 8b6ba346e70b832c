/** Puts a bus behind a TCP port or on a serial device. */
import { createServer, type Server } from 'node:net';
import type { Duplex } from 'node:stream';
import { SerialPort } from 'serialport';
import type { Bus } from './bus.ts';

/** Answers whatever comes in on a stream, each answer after the probe's own delay. */
export function answerOn(stream: Duplex, bus: Bus): void {
  stream.on('data', (piece: Buffer) => {
    for (const { bytes, delayMs } of bus.hear(piece))
      setTimeout(() => {
        if (!stream.destroyed) stream.write(bytes);
      }, delayMs);
  });
  // A client that hangs up in the middle is no reason to stop.
  stream.on('error', () => stream.destroy());
}

/** Resolves when it listens, on this machine only. */
export const serveTcp = (bus: Bus, port: number): Promise<Server> =>
  new Promise((resolve, reject) => {
    const server = createServer((socket) => answerOn(socket, bus));
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve(server));
  });

export const serveSerial = (bus: Bus, device: string, baudRate: number): Promise<SerialPort> =>
  new Promise((resolve, reject) => {
    const port = new SerialPort({ path: device, baudRate }, (error) => {
      if (error) reject(error);
      else resolve(port);
    });
    answerOn(port, bus);
  });
