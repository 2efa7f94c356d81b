/** The technical side of a site as a screen draws it. */
import { describe, expect, it } from 'vitest';
import { brokenChain, chain, dnsAnswer, evidence, host } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import { durationWords } from '#core/text/duration';
import { recordsView } from './records-view';

const ZONE = 'marsh-choir.example';
const withAnswers = (...answers: Evidence['dns']['answers']): Evidence => {
  const e = evidence();
  return { ...e, dns: { ...e.dns, zone: ZONE, answers } };
};
const txt = (name: string, value: string) => dnsAnswer(name, 'TXT', [`"${value}"`]);

describe('hosts', () => {
  it('draw each redirect to where it ends', () => {
    const e = evidence({
      hosts: [host(ZONE, { http: chain([`http://${ZONE}/`, `https://${ZONE}/`]) })],
    });
    const [entry] = recordsView(e, {}).hosts[0]!.entries;
    expect(entry).toEqual({
      label: 'http',
      steps: [
        { url: `http://${ZONE}/`, said: expect.stringMatching(/^301/), isBad: false },
        { url: `https://${ZONE}/`, said: expect.stringMatching(/^200/), isBad: false },
      ],
    });
  });

  it('say why one does not answer', () => {
    const e = evidence({
      hosts: [host(ZONE, { https: brokenChain(`https://${ZONE}/`, 'refused', 'nothing listens') })],
    });
    const entry = recordsView(e, {}).hosts[0]!.entries[1]!;
    expect(entry.steps.at(-1)).toMatchObject({ said: 'nothing listens', isBad: true });
  });
});

describe('DNS', () => {
  it('sets server beside server, and marks the one that says something else', () => {
    const one = {
      ...dnsAnswer(ZONE, 'A', ['192.0.2.10']),
      role: 'authority' as const,
      serverName: 'ns1.example',
    };
    const two = {
      ...dnsAnswer(ZONE, 'A', ['192.0.2.99']),
      role: 'authority' as const,
      serverName: 'ns2.example',
    };
    const [question] = recordsView(withAnswers(one, two), {}).questions;
    expect(question!.differs).toBe(true);
    expect(question!.said.map((s) => [s.server, s.differs])).toEqual([
      ['ns1.example', false],
      ['ns2.example', true],
    ]);
    expect(
      recordsView(withAnswers(one, { ...one, serverName: 'ns2.example' }), {}).questions[0]!.differs,
    ).toBe(false);
  });

  it('a serial number alone makes no difference', () => {
    const soa = (server: string, serial: number) => ({
      ...dnsAnswer(ZONE, 'SOA', [`ns1.example hostmaster.example ${serial} 7200 3600 1209600 3600`]),
      role: 'authority' as const,
      serverName: server,
    });
    expect(recordsView(withAnswers(soa('a', 1), soa('b', 2)), {}).questions[0]!.differs).toBe(false);
  });

  it.each([
    ['served', '192.0.2.10', true],
    ['not served', '192.0.2.11', false],
  ])('what the brief expects is %s', (_, value, isServed) => {
    const e = withAnswers(dnsAnswer(ZONE, 'A', ['192.0.2.10']));
    const [question] = recordsView(e, { records: [{ name: `${ZONE}.`, type: 'A', value }] }).questions;
    expect(question!.wanted).toEqual([{ value, isServed }]);
  });

  it('gives lines to paste', () => {
    const { lines } = recordsView(withAnswers(dnsAnswer(ZONE, 'A', ['192.0.2.10'])), {}).questions[0]!;
    expect(lines).toMatch(/^marsh-choir\.example\. \d+ IN A 192\.0\.2\.10$/);
  });

  it('says who may issue certificates', () => {
    const e = withAnswers(dnsAnswer(ZONE, 'CAA', ['0 issue "ca.example"', '0 issuewild ";"']));
    expect(recordsView(e, {}).caa).toEqual([
      {
        name: ZONE,
        words: ['certificates may come from ca.example', 'wildcard certificates may come from nobody'],
      },
    ]);
  });
});

describe('mail', () => {
  // RFC 7208 appendix A.1 and A.3: example.com's record, and one that redirects to it
  it('draws SPF as a tree and counts what it asks (RFC 7208 4.6.4)', () => {
    const e = withAnswers(
      txt(ZONE, 'v=spf1 ip4:192.0.2.128/28 a mx include:lists.example -all'),
      txt('lists.example', 'v=spf1 redirect=_spf.lists.example'),
      txt('_spf.lists.example', 'v=spf1 ip4:192.0.2.1 ~all'),
    );
    const { spf } = recordsView(e, {}).mail!;
    expect(spf.lookups).toBe(4);
    expect(spf.tree.terms).toEqual([
      'ip4:192.0.2.128/28: 192.0.2.128/28 may send',
      'a: the addresses of marsh-choir.example may send',
      'mx: the mail exchangers of marsh-choir.example may send',
      'include:lists.example: whoever lists.example lets send may send',
      '-all: everybody else may not send',
    ]);
    expect(spf.tree.children[0]!.terms).toEqual([
      'redirect=_spf.lists.example: what _spf.lists.example says',
    ]);
    expect(spf.tree.children[0]!.children[0]!.domain).toBe('_spf.lists.example');
  });

  it.each([
    [
      'v=DMARC1; p=reject; rua=mailto:a@b.example',
      'mail that fails is refused (p=reject); reports go to mailto:a@b.example',
    ],
    [
      'v=DMARC1; p=none; pct=20',
      'mail that fails is delivered all the same (p=none); asked for 20 % of it; nobody gets reports',
    ],
  ])('says in words what %s asks for', (text, words) => {
    expect(recordsView(withAnswers(txt(`_dmarc.${ZONE}`, text)), {}).mail!.dmarc.join('; ')).toBe(words);
  });

  it('says that a DKIM key was withdrawn', () => {
    const e = withAnswers(txt(`s1._domainkey.${ZONE}`, 'v=DKIM1; p='));
    expect(recordsView(e, { dkimSelectors: ['s1'] }).mail!.dkim).toEqual([
      { selector: 's1', words: 'the key was withdrawn (p= is empty)' },
    ]);
  });
});

it.each([
  [90, '90 s'],
  [300, '5 min'],
  [7200, '2 h'],
  [86_400, '24 h'],
  [172_800, '2 days'],
])('%i seconds are %s', (seconds, words) => {
  expect(durationWords(seconds)).toBe(words);
});
