/** DNS messages to one server and back, over UDP and TCP. */
import dgram from 'node:dgram';
import net from 'node:net';
import type { Destination } from '../addresses';

const silence = (): Error => Object.assign(new Error('no answer in time'), { code: 'ETIMEDOUT' });

/** @param accept whether a message is the answer; others are passed over */
export function overUdp(
  server: Destination,
  message: Buffer,
  accept: (b: Buffer) => boolean,
  ms: number,
): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = dgram.createSocket(server.address.includes(':') ? 'udp6' : 'udp4');
    const end = (error: Error | null, bytes?: Buffer) => {
      clearTimeout(timer);
      socket.removeAllListeners();
      socket.on('error', () => {});
      socket.close();
      if (error) reject(error);
      else resolve(bytes!);
    };
    const timer = setTimeout(() => end(silence()), ms);
    socket.on('error', end);
    // a forged or stray answer is passed over; the right one may still come
    socket.on('message', (bytes) => {
      if (accept(bytes)) end(null, bytes);
    });
    socket.connect(server.port, server.address, () =>
      socket.send(message, (e) => {
        if (e) end(e);
      }),
    );
  });
}

export function overTcp(server: Destination, message: Buffer, ms: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = net.connect({ host: server.address, port: server.port });
    let got = Buffer.alloc(0);
    const end = (error: Error | null, bytes?: Buffer) => {
      clearTimeout(timer);
      socket.removeAllListeners();
      socket.on('error', () => {});
      socket.destroy();
      if (error) reject(error);
      else resolve(bytes!);
    };
    const timer = setTimeout(() => end(silence()), ms);
    socket.on('error', end);
    socket.on('close', () => end(new Error('the connection was cut off')));
    socket.on('connect', () => {
      const head = Buffer.alloc(2);
      head.writeUInt16BE(message.length);
      socket.write(Buffer.concat([head, message]));
    });
    socket.on('data', (chunk) => {
      got = Buffer.concat([got, chunk]);
      if (got.length >= 2 && got.length >= 2 + got.readUInt16BE(0))
        end(null, got.subarray(2, 2 + got.readUInt16BE(0)));
    });
  });
}
