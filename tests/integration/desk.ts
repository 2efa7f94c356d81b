/** The demo on the built server, with two people of the agency at it: what the tests of its subjects share. */
import mariadb from 'mariadb';
import { afterAll, beforeAll, expect } from 'vitest';
import { Served, until, type Caller } from './served';

/** A check in the ledger. */
export interface Line {
  check: string;
  title: string;
  outcome: string;
  severity: string;
  accepted: boolean;
  found: string | null;
  fix: { id: number; state: string; returns: number } | null;
}

export interface Finding {
  check: string;
  title: string;
  outcome: string;
  severity: string;
  weight: number;
  found?: string;
  reason?: string;
  note?: string;
  placeCount: number;
  places: { place: string; outcome: string; found?: string; adopt?: { field: string } }[];
  attestations: {
    by: string;
    done: boolean;
    doesNotApply: boolean;
    note: string | null;
    place: string | null;
    goodUntil: string | null;
    file: { id: number; name: string } | null;
  }[];
  fix: { id: number; state: string; returns: number } | null;
  acceptance: { id: number; seconded: string | null } | null;
  recipe?: { steps: string };
  accepted?: boolean;
}
export interface Ledger {
  audit: { result: { score: number; gate: string }; checklist: string };
  groups: { key: string; title: string; count: number; list: Line[] }[];
  folds: { section: string; words: string }[];
  notes: string[];
}
/** A site in the roster. */
export interface RosterLine {
  id: number;
  name: string;
  client: string;
  openFixes: number;
  environment: { id: number; name: string; audit: { score: number; gate: string } | null } | null;
}

export interface Row {
  id: number;
  name: string;
  client: string;
  shown: number;
  stage: string;
  environments: Environment[];
}

export interface Environment {
  id: number;
  name: string;
  kind: string;
  url: string;
  openFixes: number;
  situation: string;
  audit: { score: number; gate: string; blockers: number } | null;
}
export interface Verdict {
  auditId: number;
  status: string;
  cause: string;
  score: number;
  reasons: string[];
  judgedBy: { brief: number; checklist: string; profile: number; catalogue: string };
}

export interface Job {
  id: number;
  status: string;
  done: number;
  total: number;
}
/** What a checklist would change. */
export interface Preview extends Job {
  results: {
    site: string;
    environment: string;
    before: { score: number; gate: string };
    after: { score: number; gate: string };
    changes: { check: string; from: string; to: string }[];
  }[];
}

/**
 * Starts the demo over in a folder of its own for the tests of one file.
 * @param env further settings of the server
 */
export function useDesk(folder: string, env: Record<string, string> = {}) {
  const served = new Served(folder, env);
  const people: { mara?: Caller; joss?: Caller } = {};
  const signIn = async (): Promise<void> => {
    people.mara = await served.signIn();
    people.joss = await served.signIn('joss@marram-studio.example');
  };
  beforeAll(async () => {
    await served.start();
    await signIn();
  });
  afterAll(async () => {
    await served.stop();
  });
  const mara: Caller = (method, path, body, headers) => people.mara!(method, path, body, headers);
  const joss: Caller = (method, path, body, headers) => people.joss!(method, path, body, headers);
  const settled = () => served.settled();

  const roster = async (query = 'limit=200'): Promise<RosterLine[]> =>
    (await mara<{ rows: RosterLine[] }>('GET', `/api/roster?${query}`)).body.rows;
  const site = async (name: string): Promise<Row> => {
    const words = encodeURIComponent(name);
    const found = (await mara<{ id: number; name: string }[]>('GET', `/api/sites/find?words=${words}`)).body;
    const known = found.find((s) => s.name === name);
    return known ? (await mara<Row>('GET', `/api/sites/${known.id}`)).body : (undefined as never);
  };
  const environmentOf = async (name: string, kind: string): Promise<Environment> =>
    (await site(name)).environments.find((p) => p.name === kind)!;
  const ledger = async (id: number) => {
    const { body } = await mara<Ledger>('GET', `/api/environments/${id}/ledger?show=all`);
    return { ...body, lines: body.groups.flatMap((g) => g.list) };
  };
  const finding = async (id: number, check: string): Promise<Finding> =>
    (await mara<Finding>('GET', `/api/environments/${id}/findings/${check}`)).body;

  return {
    served,
    mara,
    joss,
    settled,
    /** After a restart, on another port. */
    signIn,
    site,
    environmentOf,
    roster,
    ledger,
    finding,
    caller: (cookie: string): Caller => served.caller(cookie),
    environment: (name: string, kind = 'Live') => environmentOf(name, kind),
    history: async (id: number) =>
      (await mara<{ rows: Verdict[] }>('GET', `/api/environments/${id}/audits`)).body.rows,
    /** Long work, once it has ended. */
    job: (id: number) =>
      until(
        async () => (await mara<Job>('GET', `/api/jobs/${id}`)).body,
        (j) => j.status !== 'running' && j.status !== 'waiting',
      ),
    /** Audits an environment and waits until that is kept. */
    async auditAgain(environment: number): Promise<void> {
      const body = { environmentIds: [environment] };
      const { started } = (await mara<{ started: unknown[] }>('POST', '/api/audits', body)).body;
      expect(started).toHaveLength(1);
      await settled();
    },
    /** Switches a fault of the practice net. */
    turn: (slug: string, environment: string, fault: string, on: boolean) =>
      mara('POST', '/api/practice-net', { site: slug, environment, fault, on }),
    /** Says something to the database that no route says. */
    async sql<T = unknown>(text: string, values: unknown[] = []): Promise<T[]> {
      const { env: login } = served.stack.database;
      const c = await mariadb.createConnection({
        host: '127.0.0.1',
        port: Number(login.ARMBAND_DB_PORT),
        user: login.ARMBAND_DB_USER,
        password: login.ARMBAND_DB_PASSWORD,
        database: login.ARMBAND_DB_NAME,
      });
      try {
        return (await c.query(text, values)) as T[];
      } finally {
        await c.end();
      }
    },
  };
}
