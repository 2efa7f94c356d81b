import { ConnectionRefusedError, UniqueConstraintError } from 'sequelize';
import { describe, expect, it } from 'vitest';
import * as errors from '#server/platform/errors';
import { answerFor } from './answers';

const violated = (key: string): Error =>
  new UniqueConstraintError({
    parent: Object.assign(new Error(`Duplicate entry 'x' for key '${key}'`), { sql: '' }) as never,
  });

describe('what services throw becomes an answer', () => {
  it.each([
    ['what was given', new errors.Refused('no'), 400],
    ['nobody signed in', new errors.NotSignedIn('no'), 401],
    ['from elsewhere', new errors.Forbidden('no'), 403],
    ['not there', new errors.NotFound('no'), 404],
    ['something in the way', new errors.Conflict('no'), 409],
    ['too often', new errors.TooMany('no'), 429],
    ['a silent site', new errors.Unreachable('no'), 502],
    ['not ready', new errors.Unavailable('no'), 503],
  ])('%s', (_, error, status) => {
    expect(answerFor(error)).toMatchObject({ statusCode: status, message: 'no' });
  });
  it.each([
    ['a name', 'checklist_name', /a checklist of that name already/],
    ['a name, with its table', 'checklist.checklist_name', /a checklist of that name already/],
    ['a version', 'brief_version', /saved this at the same moment/],
  ])('a unique key that is taken is a conflict: %s', (_, key, message) => {
    expect(answerFor(violated(key))).toMatchObject({
      statusCode: 409,
      message: expect.stringMatching(message) as string,
    });
  });
  it('a database that is away is told as that', () => {
    const away = new ConnectionRefusedError(new Error('connect ECONNREFUSED 127.0.0.1:3306'));
    expect(answerFor(away)).toMatchObject({
      statusCode: 503,
      message: expect.stringMatching(/database does not answer/) as string,
    });
    expect(answerFor(undefined)).toBeUndefined();
  });
  it('a fault of ours is none of these', () => {
    expect(answerFor(new TypeError('x is undefined'))).toBeUndefined();
  });
});
