/** What services refuse, in the words of the matter: each with a sentence for the screen. */

/** @param data what a program needs beside the sentence */
export class DomainError extends Error {
  constructor(
    message: string,
    readonly data?: unknown,
  ) {
    super(message);
    this.name = new.target.name;
  }
}

/** What is asked for is not there, or not any more. */
export class NotFound extends DomainError {}

/** It is there, and something else stands in the way. */
export class Conflict extends DomainError {}

/** What was given cannot be taken. */
export class Refused extends DomainError {}

/** Nobody is signed in, or not with this password. */
export class NotSignedIn extends DomainError {}

/** It is not taken from there. */
export class Forbidden extends DomainError {}

/** More than is taken at once. */
export class TooLarge extends DomainError {}

/** Too often, too soon. */
export class TooMany extends DomainError {}

/** An audited site or another service gave nothing that can be used. */
export class Unreachable extends DomainError {}

/** Armband itself cannot answer now. */
export class Unavailable extends DomainError {}

/** An error as JSON, for whoever asked from another process. */
export interface SerializedError {
  name: string;
  message: string;
  data?: unknown;
}

const LONGEST = 600;

export function serializeError(error: Error): SerializedError {
  const message = error.message.slice(0, LONGEST);
  return { name: error.name, message, ...(error instanceof DomainError ? { data: error.data } : {}) };
}

const KINDS = [
  NotFound,
  Conflict,
  Refused,
  NotSignedIn,
  Forbidden,
  TooLarge,
  TooMany,
  Unreachable,
  Unavailable,
] as const;

/** The error that was told, of its own kind where that is one of these. */
export function deserializeError({ name, message, data }: SerializedError): Error {
  const kind = KINDS.find((k) => k.name === name);
  return kind ? new kind(message, data) : new Error(message);
}
