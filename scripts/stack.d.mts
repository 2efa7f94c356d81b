import type { ChildProcess } from 'node:child_process';

export const DEMO_LOGIN: { email: string; password: string };
export interface Stack {
  address: string;
  port: number;
  net: { resolver: string; map: string[]; ca: string; control: string };
  /** What a worker beside it needs to be told too. */
  settings: Record<string, string>;
  database: { port: number; child: ChildProcess; env: Record<string, string> };
  app: ChildProcess;
  practice: ChildProcess;
  log(): string;
  stop(): Promise<void>;
}
export function startStack(options: {
  folder: string;
  port?: number;
  strict?: boolean;
  watch?: boolean;
  say?: (text: string) => void;
  env?: Record<string, string>;
}): Promise<Stack>;
export function waitForAudits(address: string, report?: (left: number) => void): Promise<string>;
