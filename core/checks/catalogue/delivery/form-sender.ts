import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('delivery.form-sender', {
  'no-default-known': 'the host profile knows no default sender',
  fields: '{fieldsCount, plural, one {{fieldsCount} field} other {{fieldsCount} fields}}',
});

export const formSender = defineCheck({
  id: 'delivery.form-sender',
  title: 'Forms carry no default sender or recipient',
  fault: 'A form carries a default sender or recipient',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'form',
  needs: { pages: true },
  why: 'Messages sent in the host’s name end among the junk, and those to its default recipient end nowhere.',
  source: 'common practice',
  messages: {
    expected: ({ profile }) => `none of ${(profile.defaults?.formSenders ?? []).join(', ')}`,
    none: 'no page has a form',
  },
  judge(context) {
    const { view, profile } = context;
    const marks = (profile.defaults?.formSenders ?? []).map(foldLoosely);
    if (!marks.length) return inapplicable(msg('no-default-known'));
    const places = view.pages.flatMap((page) =>
      page.facts.forms.map((form) => {
        const place = `${page.url} ${form.id ? `#${form.id}` : form.action}`;
        const texts = [form.action, ...form.fields.flatMap((f) => [f.name, f.value ?? ''])];
        const hit = texts.find((t) => t && marks.some((m) => foldLoosely(t).includes(m)));
        return hit
          ? failed(place, { found: verbatim(hit), raw: form.raw })
          : passed(place, { found: msg('fields', { fieldsCount: form.fields.length }) });
      }),
    );
    return overPlaces(context, places);
  },
  recipe: ({ brief }) => ({
    steps: 'Set sender, subject and recipient in the form’s settings, then send a message through it.',
    ...(brief.contactEmail ? { paste: [{ label: 'Recipient', text: brief.contactEmail }] } : {}),
  }),
});
