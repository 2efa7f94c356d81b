/**
 * One thing in several spellings: hosts with letters beyond ASCII, canonicals in headers, IDs that begin
 * alike.
 */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { Header } from '#core/facts/evidence';
import { withALabels } from '#core/facts/a-labels';
import { ask, brief, brokenChain, chain, evidence, page, withHome } from '#core/checks/example-evidence';
import { mailKey } from '#core/checks/view/mail-addresses';

const home = 'https://marsh-choir.example/';
const with_ = (more: Partial<Brief>): Brief => ({ ...brief(), ...more });

describe('host names beyond ASCII (rule 6; RFC 5890 2.3.2.1)', () => {
  // the A-label of "bücher" is the example of RFC 3492's readers everywhere; checked with Python's idna codec
  const A = 'xn--bcher-kva.example',
    U = 'bücher.example';

  it('a brief is read as A-labels, records too, and nothing else is touched', () => {
    const records = [
      { name: U, type: 'A', value: '192.0.2.1' },
      { name: '@', type: 'A', value: '192.0.2.1' },
      { name: '_dmarc.Marsh.example', type: 'TXT', value: U },
    ];
    expect(
      withALabels({
        name: U,
        preferredHost: U,
        otherHosts: [`www.${U}`, 'no host'],
        stagingHosts: ['Draft.Example.'],
        nameServers: [`ns1.${U}`],
        records,
      }),
    ).toMatchObject({
      name: U,
      preferredHost: A,
      otherHosts: [`www.${A}`, 'no host'],
      stagingHosts: ['draft.example'],
      nameServers: [`ns1.${A}`],
      records: [{ name: A }, { name: '@' }, { name: '_dmarc.Marsh.example', value: U }],
    });
    expect(withALabels({})).toEqual({});
  });

  it('canonicals, staging links and a closed staging place are compared in it', () => {
    const canonical = (href: string, b: Partial<Brief>) =>
      ask('indexing.canonical-host', {
        evidence: withHome({ head: `<link rel="canonical" href="${href}">` }),
        brief: with_(b),
      }).outcome;
    expect(canonical(`https://${A}/`, { otherHosts: [U] })).toBe('passed');
    expect(canonical(`https://${A}/`, { stagingHosts: [U] })).toBe('failed');
    expect(canonical(`https://${A}/`, {})).toBe('failed');
    expect(
      ask('indexing.no-staging-links', {
        evidence: withHome({ body: `<a href="https://${U}/x">x</a>` }),
        brief: with_({ stagingHosts: [U] }),
      }).outcome,
    ).toBe('failed');
    const closed = withHome({});
    closed.pages[0]!.chain = chain([home, `https://${A}/`]);
    expect(
      ask('indexing.staging-closed', {
        evidence: closed,
        brief: with_({ preferredHost: U }),
        situation: 'staging',
        launched: true,
      }),
    ).toMatchObject({ outcome: 'passed', found: `leads to https://${A}/` });
  });

  describe('mail addresses too, in links and in running text, where the sentence goes on', () => {
    const contact = (body: string) =>
      ask('identity.contact-email', {
        evidence: withHome({ body }),
        brief: with_({ contactEmail: `info@${U}` }),
      }).outcome;
    it.each([
      [' Info@Bücher.Example ', `info@${A}`],
      ['a@b.example', 'a@b.example'],
    ])('%s: %s', (one, wanted) => {
      expect(mailKey(one)).toEqual(wanted);
    });
    it.each([
      [`<p>Write to info@${U}, please.</p>`, 'passed'],
      [`<a href="mailto:info@${A}">Mail</a>`, 'passed'],
      [`<a href="mailto:info@${U}">Mail</a>`, 'passed'],
      ['<p>info@bucher.example</p>', 'failed'],
    ])('%s: %s', (body, wanted) => {
      expect(contact(body)).toBe(wanted);
    });
    it('a private address in running text', () => {
      expect(
        ask('identity.private-addresses', {
          evidence: withHome({ body: `<p>boss@${U}</p>` }),
          brief: with_({ privateEmails: [`boss@${A}`] }),
        }).outcome,
      ).toBe('failed');
    });
  });
});

describe('canonicals in Link headers (RFC 8288 3; RFC 6596)', () => {
  const LINK = (href: string): Header[] => [
    ['Content-Type', 'text/html; charset=utf-8'],
    ['Link', `<https://fonts.example/f.css>; rel=preload, <${href}>; rel="canonical"`],
  ];
  const bare = (headers: Header[], head = '') => {
    const e = evidence();
    const html = page({ url: home, via: 'home', title: 'Marsh Choir', headers, head });
    if (!head) html.facts!.links = html.facts!.links.filter((l) => !l.rel.includes('canonical'));
    return { ...e, pages: [html, ...e.pages.slice(1)] };
  };
  const first = (check: string, e: ReturnType<typeof evidence>) =>
    ask(check, { evidence: e }).places.find((p) => p.place === home);

  it('one is enough, and may be relative, since a header has no base but the page', () => {
    expect(first('indexing.canonical-present', bare(LINK(home)))).toMatchObject({
      outcome: 'passed',
      found: home,
    });
    expect(first('indexing.canonical-present', bare(LINK('/')))).toMatchObject({
      outcome: 'passed',
      found: home,
    });
    expect(
      first('indexing.canonical-present', bare([['Link', '<https://a.example/>; rel=preload']])),
    ).toMatchObject({ outcome: 'failed', found: 'none' });
  });
  it.each([
    [`<${home}>; rel=canonical`, 1],
    [`<${home}>;rel="alternate canonical";hreflang=en`, 1],
    [`<${home}>; REL=Canonical`, 1],
    [`<${home}>; title="canonical"`, 0],
    [`<${home}>; rel="canonicals"`, 0],
    [`<${home}a,b>; rel=next, <${home}>; title="a, b"; rel=canonical`, 1],
    [`${home}; rel=canonical`, 0],
    ['<>;rel=rel='.repeat(4000) + 'canonical', 0],
  ])('“%s” names %i', (link, n) => {
    const bareOf = bare([['Link', link]]);
    expect(first('indexing.canonical-present', bareOf)!.outcome).toBe(n ? 'passed' : 'failed');
  });
  it('it is judged like a tag: staging and the home page are wrong in it, and a tag beside it has to agree', () => {
    expect(first('indexing.canonical-host', bare(LINK('https://draft.host.example/')))).toMatchObject({
      outcome: 'failed',
      found: 'staging: https://draft.host.example/',
      raw: expect.stringContaining('Link: '),
    });
    expect(first('indexing.canonical-agrees', bare(LINK(`${home}gone/`)))?.outcome).toBe('cantTell');
    expect(
      first(
        'indexing.canonical-present',
        bare(LINK(`${home}about/`), `<link rel="canonical" href="${home}">`),
      ),
    ).toMatchObject({ outcome: 'failed', found: `2 canonicals: ${home}, ${home}about/` });
    expect(
      first('indexing.canonical-present', bare(LINK(home), `<link rel="canonical" href="${home}">`))?.outcome,
    ).toBe('passed');
  });
});

describe('what only looks alike, or is nobody’s', () => {
  describe('an analytics ID is not found inside a longer one', () => {
    const present = (id: string, b = 'TM-1') =>
      ask('verification.analytics-present', {
        evidence: withHome({ head: `<script src="https://count.example/c.js?id=${id}"></script>` }),
        brief: with_({ analyticsIds: [b] }),
      }).places.find((p) => p.place === home)!.outcome;
    it.each([
      ['TM-1', 'passed'],
      ['TM-12', 'failed'],
      ['XTM-1', 'failed'],
      ['TM-12&then=TM-1', 'passed'],
    ])('%s: %s', (id, wanted) => {
      expect(present(id)).toBe(wanted);
    });
  });
  describe('reserved names (RFC 2606 3) are filler in texts, links and mail links; names that hold them are not', () => {
    const left = (body: string) =>
      ask('identity.no-placeholder-text', { evidence: withHome({ body }) }).places.find(
        (p) => p.place === home,
      )!;
    it.each([
      ['<p>for example. Come</p>', 'passed'],
      ['<a href="https://counterexample.org/">x</a><a href="https://example.community/">y</a>', 'passed'],
    ])('%s: %s', (body, wanted) => {
      expect(left(body).outcome).toBe(wanted);
    });
    it('says it in words', () => {
      expect(left('<p>See www.example.com for more.</p>')).toMatchObject({
        outcome: 'failed',
        found: '“www.example.com”',
      });
      expect(left('<a href="https://example.org/shop">Shop</a>')).toMatchObject({
        outcome: 'failed',
        found: 'a link to https://example.org/shop',
      });
      expect(left('<a href="mailto:you@example.net?subject=x">Mail</a>')).toMatchObject({
        outcome: 'failed',
        found: 'you@example.net',
      });
    });
  });
  it('a word without end beside a reserved name’s beginning takes no time to speak of', () => {
    const e = withHome({});
    e.pages[0]!.facts!.text = `${'a'.repeat(200_000)} example. ${'a.'.repeat(100_000)}`;
    const started = performance.now();
    expect(
      ask('identity.no-placeholder-text', { evidence: e }).places.find((p) => p.place === home)!.outcome,
    ).toBe('passed');
    expect(performance.now() - started).toBeLessThan(5000);
  });
  describe('a brief without tokens says nothing of unknown ones (rule 2), one that wants none asks nothing', () => {
    const known = (b: Partial<Brief>) => ask('verification.tokens-known', { brief: with_(b) }).outcome;
    it.each<[Partial<Brief>, string]>([
      [{}, 'passed'],
      [{ tokens: [] }, 'untested'],
      [{ tokens: [], notWanted: { tokens: 'private' } }, 'inapplicable'],
      [{ tokens: [{ kind: 'tide-site-verification', value: 'other', place: 'meta' }] }, 'failed'],
    ])('%j: %s', (b, wanted) => {
      expect(known(b)).toBe(wanted);
    });
  });
  describe('scripts from the client’s own subdomains are nobody else’s', () => {
    const e = withHome({ head: '<script src="https://media.marsh-choir.example/a.js"></script>' });
    const outcome = (b: Partial<Brief>) =>
      ask('verification.scripts-expected', {
        evidence: e,
        brief: with_({ allowedScriptHosts: ['count.example'], ...b }),
      }).outcome;
    it.each([
      [{}, 'failed'],
      [{ knownSubdomains: ['media.marsh-choir.example'] }, 'passed'],
    ])('%j: %s', (b, wanted) => {
      expect(outcome(b)).toBe(wanted);
    });
  });
  it('a touch icon that did not come in time is undecided', () => {
    const url = `${home}touch.png`;
    const e = evidence();
    expect(
      ask('sharing.touch-icon', {
        evidence: { ...e, assets: [{ url, roles: ['touch-icon'], chain: brokenChain(url, 'timeout') }] },
      }).outcome,
    ).toBe('cantTell');
    expect(
      ask('sharing.touch-icon', {
        evidence: { ...e, assets: [{ url, roles: ['touch-icon'], chain: chain([url], 404) }] },
      }).outcome,
    ).toBe('failed');
  });
});
