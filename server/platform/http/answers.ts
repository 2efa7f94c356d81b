/** From what services throw to the status of an answer: the one place that knows both. */
import { UniqueConstraintError } from 'sequelize';
import { isDatabaseDown } from '#server/platform/db/reachable';
import {
  Conflict,
  DomainError,
  Forbidden,
  NotFound,
  NotSignedIn,
  Refused,
  TooLarge,
  TooMany,
  Unavailable,
  Unreachable,
} from '#server/platform/errors';

const STATUS: [kind: typeof DomainError, code: number, message: string][] = [
  [Refused, 400, 'Bad request'],
  [NotSignedIn, 401, 'Not signed in'],
  [Forbidden, 403, 'Forbidden'],
  [NotFound, 404, 'Not found'],
  [Conflict, 409, 'Conflict'],
  [TooLarge, 413, 'Content too large'],
  [TooMany, 429, 'Too many requests'],
  [Unreachable, 502, 'Bad gateway'],
  [Unavailable, 503, 'Unavailable'],
];

/** What a unique key of the tables means to the person who met it. */
const TAKEN: Record<string, string> = {
  user_email: 'Somebody with this address is there already.',
  client_name: 'There is a client of that name already.',
  host_profile_name: 'There is a host profile of that name already.',
  site_name_of_client: 'This client has a site of that name already.',
  checklist_name: 'There is a checklist of that name already.',
};
const SAVED_MEANWHILE = 'Somebody else saved this at the same moment. Load it again, then save.';

/** The unique key that was violated, as MariaDB names it. */
function keyOf(error: UniqueConstraintError): string {
  return /for key '(?:[^'.]*\.)?([^']+)'/.exec(error.parent.message)?.[1] ?? '';
}

export interface HttpAnswer {
  statusCode: number;
  statusMessage: string;
  message: string;
  data?: unknown;
}

/** @returns undefined for what is a fault of ours */
export function answerFor(error: unknown): HttpAnswer | undefined {
  if (error instanceof UniqueConstraintError)
    return { statusCode: 409, statusMessage: 'Conflict', message: TAKEN[keyOf(error)] ?? SAVED_MEANWHILE };
  if (isDatabaseDown(error))
    return {
      statusCode: 503,
      statusMessage: 'Unavailable',
      message: 'The database does not answer. Try again in a moment.',
    };
  if (!(error instanceof DomainError)) return undefined;
  const [, statusCode, statusMessage] = STATUS.find(([kind]) => error instanceof kind) ?? STATUS[0]!;
  return { statusCode, statusMessage, message: error.message, data: error.data };
}
