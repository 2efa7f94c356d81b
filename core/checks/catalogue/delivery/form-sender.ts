import { quantity } from '#core/text/quantity';
import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';

export const formSender: Check = {
  id: 'delivery.form-sender',
  section: 'delivery',
  title: 'Forms carry no default sender or recipient',
  severity: 'minor',
  situations: where('SL'),
  scope: 'form',
  needs: 'pages',
  why: 'Messages sent in the host’s name end among the junk, and those to its default recipient end nowhere.',
  source: 'common practice',
  judge({ view, profile }) {
    const marks = (profile.defaults?.formSenders ?? []).map(foldLoosely);
    if (!marks.length) return inapplicable('the host profile knows no default sender');
    const places = view.pages.flatMap((page) =>
      page.facts.forms.map((form) => {
        const place = `${page.url} ${form.id ? `#${form.id}` : form.action}`;
        const texts = [form.action, ...form.fields.flatMap((f) => [f.name, f.value ?? ''])];
        const hit = texts.find((t) => t && marks.some((m) => foldLoosely(t).includes(m)));
        return hit
          ? failed(place, { found: hit, raw: form.raw })
          : passed(place, { found: quantity(form.fields.length, 'field') });
      }),
    );
    return overPlaces(places, {
      expected: `none of ${profile.defaults!.formSenders!.join(', ')}`,
      unit: ['form', 'forms'],
      none: 'no page has a form',
    });
  },
  recipe: ({ brief }) => ({
    steps: 'Set sender, subject and recipient in the form’s settings, then send a message through it.',
    ...(brief.contactEmail ? { paste: [{ label: 'Recipient', text: brief.contactEmail }] } : {}),
  }),
};
