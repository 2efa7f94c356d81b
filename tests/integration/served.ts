/**
 * The built server with its database and practice net, and people who are signed in; for the tests of its
 * routes.
 */
import { DEMO_LOGIN, startStack, waitForAudits } from '../../scripts/stack.mjs';
import { freshDemo } from '../fresh-demo';

export interface Answer<T> {
  status: number;
  body: T;
  headers: Headers;
}
export type Caller = <T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
  headers?: Record<string, string>,
) => Promise<Answer<T>>;
type Stack = Awaited<ReturnType<typeof startStack>>;

export class Served {
  stack!: Stack;
  constructor(
    private readonly folder: string,
    private readonly env: Record<string, string> = {},
  ) {}

  /** Starts over, with every environment of the demo audited once. */
  async start(): Promise<void> {
    await freshDemo(this.folder);
    await this.again();
  }
  /** Starts on what is there. */
  async again(): Promise<void> {
    this.stack = await startStack({ folder: this.folder, env: this.env });
  }
  async stop(): Promise<void> {
    await this.stack?.stop();
  }
  async settled(): Promise<void> {
    await waitForAudits(this.stack.address);
  }

  /** @param cookie none for a stranger */
  caller(cookie = ''): Caller {
    return async <T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
      const raw = body instanceof Uint8Array;
      const answer = await fetch(this.stack.address + path, {
        method,
        redirect: 'manual',
        headers: {
          cookie,
          ...(method === 'GET'
            ? {}
            : { 'content-type': raw ? 'application/octet-stream' : 'application/json' }),
          ...headers,
        },
        body: method === 'GET' ? undefined : raw ? Buffer.from(body) : JSON.stringify(body ?? {}),
      });
      if (/^application\/zip|^image\//.test(answer.headers.get('content-type') ?? ''))
        return {
          status: answer.status,
          body: new Uint8Array(await answer.arrayBuffer()) as T,
          headers: answer.headers,
        };
      const text = await answer.text();
      let parsed: unknown = text;
      try {
        parsed = JSON.parse(text);
      } catch {
        /* a page or a file */
      }
      return { status: answer.status, body: parsed as T, headers: answer.headers };
    };
  }
  async signIn(email = DEMO_LOGIN.email): Promise<Caller> {
    const answer = await fetch(`${this.stack.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email, password: DEMO_LOGIN.password }),
    });
    return this.caller(
      answer.headers
        .getSetCookie()
        .map((c) => c.split(';')[0])
        .join('; '),
    );
  }
}

/** Waits until a question has the wanted answer. */
export async function until<T>(
  ask: () => Promise<T>,
  good: (answer: T) => boolean,
  ms = 120_000,
): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (good(answer)) return answer;
    if (Date.now() > end) throw new Error(`not so after ${ms} ms: ${JSON.stringify(answer).slice(0, 500)}`);
    await new Promise((r) => setTimeout(r, 100));
  }
}

/** Waits until a server says that it is well. */
export const untilHealthy = (address: string): Promise<number> =>
  until(
    () =>
      fetch(`${address}/api/health`).then(
        (a) => a.status,
        () => 0,
      ),
    (status) => status === 200,
  );
