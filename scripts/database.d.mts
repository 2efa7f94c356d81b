import type { ChildProcess } from 'node:child_process';

export function freePort(wanted?: number): Promise<number>;
export function startDatabase(
  folder: string,
  databases?: string[],
  parts?: { stop(): Promise<void> }[],
  wanted?: number,
): Promise<{ port: number; child: ChildProcess; env: Record<string, string>; stop(): Promise<void> }>;
