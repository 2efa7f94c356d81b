/** SPF, DMARC and DKIM records in the evidence. */
import { isDmarc } from '#core/extract/dmarc';
import { isSpf, type SpfDns } from '#core/extract/spf';
import { joinedText } from '#core/facts/dns-text';
import type { DnsAnswer, Evidence } from '#core/facts/evidence';
import { answersFor, bestAnswers, isUsable } from '#core/checks/kit/dns-answers';
import { verbatim, type Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('domain.mail-texts', { 'not-asked': '{name} was not asked for' });

export interface Texts {
  texts: string[];
  answer?: DnsAnswer;
  failed?: Message;
}

/** All TXT values of a name, joined; `failed` where no server gave an answer. */
export function textsOf(evidence: Evidence, name: string): Texts {
  const answers = bestAnswers(evidence, name, 'TXT');
  const good = answers.find(isUsable);
  if (!good) return { texts: [], failed: verbatim(answers[0]?.error) ?? msg('not-asked', { name }) };
  return {
    texts: good.records.filter((r) => r.type === 'TXT').map((r) => joinedText(r.value)),
    answer: good,
  };
}
export const spfOf = (evidence: Evidence, name: string): Texts => {
  const t = textsOf(evidence, name);
  return { ...t, texts: t.texts.filter(isSpf) };
};
export const dmarcOf = (evidence: Evidence, name: string): Texts => {
  const t = textsOf(evidence, `_dmarc.${name}`);
  return { ...t, texts: t.texts.filter(isDmarc) };
};

/** The evidence as SPF's counting asks it. */
export function spfDns(evidence: Evidence): SpfDns {
  return {
    txt: (domain) => {
      const { texts, failed } = textsOf(evidence, domain);
      return { values: texts, ...(failed ? { failed: true } : {}) };
    },
    exists: (name, type) => {
      const answers = (type === 'MX' ? ['MX'] : ['A', 'AAAA'])
        .flatMap((t) => answersFor(evidence, name, t))
        .filter(isUsable);
      return answers.length ? answers.some((a) => a.records.length > 0) : undefined;
    },
    exchangers: (name) => {
      const answer = answersFor(evidence, name, 'MX').find(isUsable);
      return answer?.records.filter((r) => r.type === 'MX').length;
    },
  };
}
