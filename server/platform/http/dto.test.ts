import { describe, expect, it } from 'vitest';
import { AttestDto, StartAuditsDto } from '../../audits/dto';
import { AcceptDto, FixChangeDto } from '../../fixes/dto';
import { SignInDto } from '../../people/dto';
import { FaultSwitchDto } from '../../practice/dto';
import { BriefDto, NewSiteDto, ReadSiteDto } from '../../sites/dto';
import { parseAs } from './validation';

const site = {
  name: 'Kites',
  client: 'Windrow',
  liveUrl: 'https://kites.example/',
  environments: [],
  stage: 'building',
  replaces: false,
  brief: {},
};
const takes = async (dto: new () => object, body: unknown): Promise<true | string> =>
  parseAs(dto, body).then(
    () => true as const,
    (e: { message: string }) => e.message,
  );

describe('what a new site may be', () => {
  it('takes the least and the most', async () => {
    expect(await takes(NewSiteDto, site)).toBe(true);
    expect(
      await takes(NewSiteDto, {
        ...site,
        launchDate: '2026-12-24',
        hostProfile: 'Fennel Hosting',
        environments: [
          { name: 'Draft', url: 'https://draft.host.example/kites/' },
          { name: 'Test', url: 'http://localhost:8080/' },
        ],
        brief: {
          name: 'Kites',
          languages: ['en-GB', 'cy'],
          phone: '+44 1632 960447',
          preferredHost: 'www.kites.example',
          records: [{ name: 'kites.example', type: 'A', value: '192.0.2.1', ttl: 300 }],
          tokens: [{ kind: 'a', value: 'b', place: 'txt' }],
          analyticsIds: ['TM-1'],
        },
      }),
    ).toBe(true);
  });
  it.each([
    ['liveUrl', { liveUrl: 'kites.example' }],
    ['liveUrl', { liveUrl: 'ftp://kites.example/' }],
    ['stage', { stage: 'sold' }],
    ['replaces', { replaces: 'yes' }],
    ['launchDate', { launchDate: '24.12.2026' }],
    ['launchDate', { launchDate: '2026-13-01' }],
    ['name', { name: '' }],
    ['environments.0.url', { environments: [{ name: 'x', url: 'x' }] }],
    ['brief.contactEmail', { brief: { contactEmail: 'nobody' } }],
    ['brief.preferredHost', { brief: { preferredHost: 'https://kites.example' } }],
    ['brief.languages', { brief: { languages: ['en_GB'] } }],
    ['brief.phone', { brief: { phone: 'call us' } }],
    ['brief.records.0.type', { brief: { records: [{ name: 'a', type: 'B', value: 'c' }] } }],
    ['brief.records.0.ttl', { brief: { records: [{ name: 'a', type: 'A', value: 'c', ttl: -1 }] } }],
    ['brief.tokens.0.place', { brief: { tokens: [{ kind: 'a', value: 'b', place: 'sky' }] } }],
    ['more', { more: 1 }],
    ['brief.colour', { brief: { colour: 'red' } }],
  ])('refuses a bad %s, and names it', async (field, change) => {
    const said = await takes(NewSiteDto, { ...site, ...change });
    expect(said).not.toBe(true);
    expect(said).toContain(field.split('.').pop());
  });
  it('international host names are host names', async () => {
    expect(
      await takes(BriefDto, { preferredHost: 'bücher.example', otherHosts: ['www.bücher.example'] }),
    ).toBe(true);
  });
  it('null empties a text of a brief', async () => {
    expect(await takes(BriefDto, { phone: null, name: null })).toBe(true);
  });
});

describe('the rest of what comes in', () => {
  it.each([
    [SignInDto, { email: 'a@b.example', password: 'x' }, true],
    [SignInDto, { email: 'a@b.example' }, false],
    [SignInDto, { email: ['a'], password: 'x' }, false],
    [SignInDto, { email: 'a@b.example', password: 'x'.repeat(501) }, false],
    [StartAuditsDto, { environmentIds: [1, 2] }, true],
    [StartAuditsDto, { environmentIds: [] }, false],
    [StartAuditsDto, { environmentIds: [1.5] }, false],
    [StartAuditsDto, { environmentIds: 1 }, false],
    [FixChangeDto, { state: 'in progress' }, true],
    [FixChangeDto, { state: 'forgotten' }, false],
    [FixChangeDto, { dueDate: '' }, true],
    [FixChangeDto, { dueDate: 'soon' }, false],
    [FixChangeDto, { ownerId: -1 }, false],
    [FixChangeDto, { comment: '' }, false],
    [AcceptDto, { reason: 'a soft launch', until: '2027-01-01' }, true],
    [AcceptDto, { reason: 'x', until: '2027-01-01' }, false],
    [AcceptDto, { reason: 'a soft launch', until: 'later' }, false],
    [AttestDto, { check: 'delivery.backup', done: true }, true],
    [AttestDto, { check: '../x', done: true }, false],
    [AttestDto, { check: 'delivery.backup', done: 'yes' }, false],
    [FaultSwitchDto, { site: 'ferries', environment: 'live', fault: 'mixed', on: true }, true],
    [FaultSwitchDto, { site: 'ferries', environment: 'moon', fault: 'mixed', on: true }, false],
    [ReadSiteDto, { url: 'https://a.example/' }, true],
    [ReadSiteDto, { url: 'file:///etc/passwd' }, false],
    [ReadSiteDto, { url: 'javascript:alert(1)' }, false],
  ])('%o with %j: %s', async (dto, body, good) => {
    expect((await takes(dto as new () => object, body)) === true).toBe(good);
  });
  it.each([null, 'text', 7, ['list']])('%j is no object', async (body) => {
    expect(await takes(SignInDto, body)).toContain('JSON object');
  });
});
