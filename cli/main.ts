#!/usr/bin/env node
/** The command `armband`: its words are read first, and all else is loaded when it is needed. */
import { readArguments, USAGE, UsageError } from './arguments';

const say = (text: string): void => {
  process.stderr.write(`${text}\n`);
};

async function main(argv: string[]): Promise<number> {
  const args = readArguments(argv);
  if (args.help) {
    process.stdout.write(`${USAGE}\n`);
    return 0;
  }
  const { audit, catalogueList, writeFile } = await import('./audit');
  const put = (text: string): void => {
    if (args.out) writeFile(args.out, `${text}\n`);
    else process.stdout.write(`${text}\n`);
  };
  if (!args.list) return audit(args, put);
  put(JSON.stringify(catalogueList(), null, 2));
  return 0;
}

main(process.argv.slice(2)).then(
  (code) => {
    process.exitCode = code;
  },
  (error: unknown) => {
    say(
      error instanceof UsageError
        ? `${error.message}\n${USAGE}`
        : `The audit could not be made: ${(error as Error).stack ?? String(error)}`,
    );
    process.exitCode = 2;
  },
);
