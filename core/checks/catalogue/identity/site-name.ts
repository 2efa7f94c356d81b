import { foldSpace } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { isOrganisation, nodesOf } from './structured-nodes';
import { escapeText } from '#core/recipes/markup';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('identity.site-name', {
  'other-name': '“{text}” in {from}',
  'no-name': 'neither og:site_name nor JSON-LD with a name',
});

export const siteName = defineCheck({
  id: 'identity.site-name',
  title: 'og:site_name or JSON-LD name is the brief’s',
  fault: 'og:site_name or JSON-LD name is not the brief’s',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['jsonLd'],
  needs: { brief: ['name'], pages: true },
  why: 'Search listings and previews show this name above the title; otherwise they guess one.',
  source: 'Open Graph protocol; schema.org',
  messages: { expected: ({ brief }) => brief.name },
  judge(context) {
    const { brief, view } = context;
    const { expected } = context.words;
    const home = view.home;
    if (!home) return cantTell(commonMessage('home-not-read'), { expected });
    const meta = home.openGraph('og:site_name');
    const nodes = nodesOf(home).filter(
      (n) => n.name && (n.types.some((t) => /WebSite$/.test(t)) || isOrganisation(n)),
    );
    const stated = [
      ...(meta?.content.trim() ? [{ text: meta.content, raw: meta.raw, from: 'og:site_name' }] : []),
      ...nodes.map((n) => ({
        text: n.name!,
        raw: `"name": ${JSON.stringify(n.name)}`,
        from: `JSON-LD ${n.types[0]}`,
      })),
    ];
    const same = (text: string) => foldSpace(text).toLowerCase() === foldSpace(brief.name).toLowerCase();
    const hit = stated.find((s) => same(s.text));
    const other = stated.find((s) => !same(s.text));
    if (hit)
      return overSite(context, passed(home.url, { found: verbatim(hit.text), raw: hit.raw }), {
        ...(other ? { notes: [`${other.from} says “${other.text}”.`] } : {}),
      });
    return overSite(
      context,
      failed(home.url, {
        found: other ? msg('other-name', { text: other.text, from: other.from }) : msg('no-name'),
        raw: other?.raw,
        ...(other ? { adopt: { field: 'name', how: 'set', value: foldSpace(other.text) } as const } : {}),
      }),
    );
  },
  recipe: ({ brief }) => ({
    steps: 'Set the site’s name in its settings, or put this tag into the head of the template.',
    paste: [
      { label: 'Tag', text: `<meta property="og:site_name" content="${escapeText(brief.name ?? '')}">` },
    ],
  }),
});
