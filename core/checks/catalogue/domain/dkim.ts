import { parseDkim } from '#core/extract/dmarc';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText } from '#core/checks/kit/dns-answers';
import { textsOf } from './mail-texts';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.dkim', {
  'no-key': 'no key',
  'several-keys': '{keysCount} keys',
  'key-withdrawn': 'the key was withdrawn (p= is empty)',
  'short-key': 'RSA key of {bits} bits',
  key: '{type}, {bits} bits{isTest, select, yes {, marked as a test} other {}}',
});

export const dkim = defineCheck({
  id: 'domain.dkim',
  title: 'DKIM keys are published and usable',
  fault: 'DKIM key is missing or unusable',
  severity: 'major',
  situations: ['live'],
  scope: 'record',
  needs: { records: true, brief: ['dkimSelectors'] },
  why: 'A signature whose key cannot be found counts as forged.',
  source: 'RFC 6376 3.6; RFC 8301',
  messages: { expected: 'a usable key at each selector', unit: 'selector' },
  judge(context) {
    const { evidence, brief } = context;
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    return overPlaces(
      context,
      brief.dkimSelectors.map((s) => {
        const name = `${s}._domainkey.${zone}`;
        const { texts, answer, failed: silent } = textsOf(evidence, name);
        if (silent) return unsure(name, silent);
        const raw = answer && answerText(answer);
        const keys = texts.filter((t) => /(?:^|;)\s*p\s*=/.test(t));
        if (!keys.length) return failed(name, { found: msg('no-key'), raw });
        if (keys.length > 1)
          return failed(name, { found: msg('several-keys', { keysCount: keys.length }), raw });
        const key = parseDkim(keys[0]!);
        if (key.revoked) return failed(name, { found: msg('key-withdrawn'), raw });
        if (key.errors.length) return failed(name, { found: verbatim(key.errors[0]!), raw });
        if (key.type === 'rsa' && (key.bits ?? 0) < 1024)
          return failed(name, { found: msg('short-key', { bits: key.bits ?? undefined }), raw });
        return passed(name, {
          found: msg('key', {
            type: key.type,
            bits: key.bits ?? undefined,
            isTest: key.testing ? 'yes' : 'no',
          }),
          raw,
        });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Set the record that the mail provider names for this selector; long keys are split into strings of 255 characters.',
    paste: [
      {
        label: 'Zone file',
        text: failedPlaces(finding)
          .map((p) => `${p.place}. 3600 IN TXT "v=DKIM1; k=rsa; p=…"`)
          .join('\n'),
      },
    ],
  }),
});
