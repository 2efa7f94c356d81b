/** Debian's redis-server on loopback, which keeps nothing. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import net from 'node:net';
import { tmpdir } from 'node:os';
import { freePort } from '../../scripts/database.mjs';
import { until } from './served';

const answers = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = net.connect(port, '127.0.0.1', () => socket.write('PING\r\n'));
    socket.once('data', (d) => {
      socket.destroy();
      resolve(String(d).startsWith('+PONG'));
    });
    socket.once('error', () => resolve(false));
  });

export class Redis {
  private child: ChildProcess | undefined;
  private port = 0;

  get address(): string {
    return `redis://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    this.child = spawn(
      'redis-server',
      [
        '--port',
        String(this.port),
        '--bind',
        '127.0.0.1',
        '--save',
        '',
        '--appendonly',
        'no',
        '--dir',
        tmpdir(),
      ],
      { stdio: 'ignore' },
    );
    await until(() => answers(this.port), Boolean);
  }

  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
    if (!this.child || this.child.exitCode !== null || this.child.signalCode !== null) return;
    const gone = once(this.child, 'exit');
    this.child.kill(signal);
    await gone;
  }
}
