import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import {
  cantTell,
  failed,
  failedPlaces,
  inapplicable,
  overPlaces,
  passed,
  unsure,
} from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.name-servers', {
  'none-found': 'no name server of the zone could be found',
  'not-one-briefs': 'not one of the brief’s',
  'has-no-address': 'it has no address',
  silent: 'silent: {error}',
  lame: 'lame: {rcode}{isAuthoritative, select, yes {} other {, without authority}}',
  'not-name-server-zone': 'it is not a name server of the zone',
  'one-name-server-only': 'one name server only',
});

export const nameServers = defineCheck({
  id: 'domain.name-servers',
  title: 'Name servers are the brief’s and answer with authority',
  fault: 'Name server is not the brief’s, silent or lame',
  severity: 'major',
  situations: ['holding', 'former', 'live'],
  scope: 'record',
  needs: { records: true },
  why: 'A name server that does not know the zone is a lottery ticket for every visitor.',
  source: 'RFC 1034 4.1; RFC 2182 5; RFC 1912 2.8; RFC 2181 10.3',
  messages: { unit: 'name server' },
  judge(context) {
    const { evidence, brief, situation } = context;
    const { zone, nameServers: servers } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    if (!servers.length) return cantTell(msg('none-found'));
    // before the move the present ones are not yet the brief's
    const named = situation === 'live' || situation === 'holding' ? (brief.nameServers ?? []) : [];
    const places: PlaceResult[] = servers.map((s) => {
      const alias = answersFor(evidence, s.name, 'CNAME').find((a) =>
        a.records.some((r) => r.type === 'CNAME' && plainName(r.name) === s.name),
      );
      if (alias) return failed(s.name, { found: commonMessage('alias'), raw: answerText(alias) });
      if (named.length && !named.includes(s.name))
        return failed(s.name, {
          found: msg('not-one-briefs'),
          adopt: { field: 'nameServers', how: 'set', value: servers.map((x) => x.name) },
        });
      if (!s.addresses.length) return failed(s.name, { found: msg('has-no-address') });
      const own = evidence.dns.answers.filter(
        (a) =>
          a.role === 'authority' &&
          a.serverName === s.name &&
          plainName(a.name) === zone &&
          (a.type === 'SOA' || a.type === 'NS'),
      );
      const spoken = own.filter((a) => a.rcode !== 'NONE');
      if (!own.length) return unsure(s.name, commonMessage('not-asked'));
      if (!spoken.length)
        return /forbidden|private|loopback|reserved/.test(own[0]!.error ?? '')
          ? unsure(s.name, verbatim(own[0]!.error!))
          : failed(s.name, {
              found: msg('silent', { error: own[0]!.error ?? commonMessage('no-answer') }),
              raw: answerText(own[0]!),
            });
      const lame = spoken.find((a) => a.rcode !== 'NOERROR' || !a.authoritative);
      return lame
        ? failed(s.name, {
            found: msg('lame', { rcode: lame.rcode, isAuthoritative: lame.authoritative ? 'yes' : 'no' }),
            raw: answerText(lame),
          })
        : passed(s.name, { found: verbatim(s.addresses.join(', ')) });
    });
    for (const n of named)
      if (!servers.some((s) => s.name === n)) places.push(failed(n, { found: msg('not-name-server-zone') }));
    if (servers.length < 2) places.push(failed(zone, { found: msg('one-name-server-only') }));
    return overPlaces(context, places, {
      expected: `at least two${named.length ? `, ${named.join(' and ')}` : ''}, each with authority`,
    });
  },
  recipe({ brief, evidence }, finding) {
    const today = evidence.dns.nameServers.map((s) => s.name);
    const bad = new Set(failedPlaces(finding).map((p) => p.place));
    const wanted = brief.nameServers?.length ? brief.nameServers : today.filter((name) => !bad.has(name));
    const isOther = wanted.length !== today.length || wanted.some((name) => !today.includes(name));
    return {
      steps: `Look at the operator of the name servers that each of them carries the zone, and set those that do at the registrar${wanted.length < 2 ? '; there have to be two at least, so ask the operator for a second one' : ''}.`,
      // the same as today would mend nothing
      paste:
        isOther && wanted.length > 1 ? [{ label: 'At the registrar', text: wanted.join('\n') }] : undefined,
    };
  },
});
