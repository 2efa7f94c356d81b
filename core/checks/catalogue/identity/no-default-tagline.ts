import type { HostProfile } from '#core/facts/host-profile';
import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { failed, overPages } from '#core/checks/kit/judgement';
import { textTag } from '#core/recipes/markup';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('identity.no-default-tagline', {
  'default-text': '“{content}”',
  'default-in-title': '“{part}” in the title',
});

/** Taglines that page makers leave behind. Common practice, from memory; the host profile adds its own. */
const DEFAULT_TAGLINES = [
  'just another site',
  'just another website',
  'a short description of your site',
  'your tagline here',
  'your slogan here',
  'site description',
  'description of your site',
  'add a description',
  'welcome to our website',
  'welcome to my website',
  'enter your description here',
];
const FOLDED = DEFAULT_TAGLINES.map(foldLoosely);

/** Taglines and descriptions that are nobody’s own, folded. */
export function defaultTaglines(profile: HostProfile | undefined): ReadonlySet<string> {
  const { taglines = [], texts = [] } = profile?.defaults ?? {};
  return new Set([...FOLDED, ...[...taglines, ...texts].map(foldLoosely).filter(Boolean)]);
}

export const noDefaultTagline = defineCheck({
  id: 'identity.no-default-tagline',
  title: 'Descriptions and tagline are not a default',
  fault: 'A description or tagline is a default',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A template’s slogan under the client’s name is the first thing their competitors quote.',
  source: 'common practice',
  messages: { expected: 'no default description or tagline' },
  judge(context) {
    const all = defaultTaglines(context.profile);
    return overPages(context, (page) => {
      for (const meta of page.facts.metas) {
        if (meta.name !== 'description' && meta.property !== 'og:description') continue;
        if (all.has(foldLoosely(meta.content)))
          return failed(page.url, { found: msg('default-text', { content: meta.content }), raw: meta.raw });
      }
      // titles often end in the tagline: “Name – Just another site”
      const title = page.facts.titles[0];
      const part = title?.text
        .split(/\s[–—|·»:-]\s/)
        .slice(1)
        .find((t) => all.has(foldLoosely(t)));
      return part
        ? failed(page.url, { found: msg('default-in-title', { part }), raw: title!.raw + title!.text })
        : page.passed;
    });
  },
  recipe(context, finding) {
    const { tagline } = context.brief;
    const written = intendedPaste(context, finding, ['description']);
    return {
      steps: 'Set the site’s own tagline in its settings; where there is none, leave the field empty.',
      paste: [
        ...written,
        ...(tagline ? [{ label: 'Description', text: textTag('description', tagline) }] : []),
      ],
    };
  },
});
