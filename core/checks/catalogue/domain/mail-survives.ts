import type { PlaceResult } from '#core/facts/finding';
import { isDmarc } from '#core/extract/dmarc';
import { isSpf } from '#core/extract/spf';
import { joinedText } from '#core/facts/dns-text';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { bestAnswers, plainName, sameValue, zoneLine } from '#core/checks/kit/dns-answers';
import { changeAhead } from './change';

export const mailSurvives = defineCheck({
  id: 'domain.mail-survives',
  title: 'Mail goes on through the launch',
  severity: 'blocker',
  situations: ['staging', 'holding', 'former'],
  scope: 'record',
  needs: { records: true, brief: ['mail'] },
  why: 'A move of name servers that forgets the mail records stops the client’s mail, and they notice before the agency does.',
  source: 'RFC 5321 5.1; common practice',
  messages: {
    expected: 'every mail record of today among the brief’s, none resting on a record that moves',
    unit: 'mail record',
    none: 'the domain has no mail records today',
  },
  judge(context) {
    const { evidence, brief } = context;
    if (brief.mail === 'none') return inapplicable('the brief says the domain has no mail');
    const { zone } = evidence.dns;
    if (!zone) return inapplicable('the site has no zone of its own');
    const change = changeAhead(evidence, brief);
    if (!change) return cantTell('no name server answered');
    if (!change.nameServers && !change.records.length)
      return inapplicable('neither name servers nor address records will change');
    const records = brief.records ?? [];
    const today = [
      ...bestAnswers(evidence, zone, 'MX').flatMap((a) => a.records.filter((r) => r.type === 'MX')),
      ...bestAnswers(evidence, zone, 'TXT').flatMap((a) =>
        a.records.filter((r) => r.type === 'TXT' && isSpf(joinedText(r.value))),
      ),
      ...bestAnswers(evidence, `_dmarc.${zone}`, 'TXT').flatMap((a) =>
        a.records.filter((r) => r.type === 'TXT' && isDmarc(joinedText(r.value))),
      ),
      ...(brief.dkimSelectors ?? []).flatMap((s) =>
        ['TXT', 'CNAME'].flatMap((type) =>
          bestAnswers(evidence, `${s}._domainkey.${zone}`, type).flatMap((a) =>
            a.records.filter((r) => r.type === type),
          ),
        ),
      ),
    ];
    const places: PlaceResult[] = [];
    const seen = new Set<string>();
    for (const r of today) {
      const place = `${r.type} ${plainName(r.name)} ${r.type === 'MX' ? r.value : joinedText(r.value).slice(0, 40)}`;
      if (seen.has(place)) continue;
      seen.add(place);
      const raw = zoneLine(r);
      const kept = records.some(
        (e) =>
          e.type === r.type && plainName(e.name) === plainName(r.name) && sameValue(r.type, e.value, r.value),
      );
      if (change.nameServers && !kept) {
        places.push(failed(place, { found: 'not among the brief’s records', raw }));
        continue;
      }
      // an exchanger that rests on a record which moves takes its mail along
      const exchanger = r.type === 'MX' ? plainName(r.value.split(' ')[1] ?? '') : '';
      const moving =
        change.records.find((m) => plainName(m.name) === exchanger) ??
        change.records.find((m) =>
          bestAnswers(evidence, exchanger, 'CNAME').some((a) =>
            a.records.some((x) => plainName(x.value) === plainName(m.name)),
          ),
        );
      places.push(
        moving
          ? failed(place, {
              found: `it rests on ${plainName(moving.name)}, which moves to ${moving.value}`,
              raw,
            })
          : passed(place, { found: change.nameServers ? 'in the brief' : 'not touched', raw }),
      );
    }
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps:
      'Take these records into the brief and set them at the new operator before the name servers change. Where an exchanger rests on the web server’s name, give it a name of its own first.',
    paste: [
      {
        label: 'Zone file',
        text: finding.places
          .filter((p) => p.outcome === 'failed' && p.raw)
          .map((p) => p.raw!)
          .join('\n'),
      },
    ],
  }),
});
