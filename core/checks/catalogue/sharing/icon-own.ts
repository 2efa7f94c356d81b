import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('sharing.icon-own', {
  'no-default-known': 'the host profile knows no default icon',
  'default-icon': 'the default icon of {name}',
  'icon-own': 'an icon of its own',
});

export const iconOwn = defineCheck({
  id: 'sharing.icon-own',
  title: 'Favicon is not the host’s default',
  fault: 'Favicon is the host’s default',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['assets'],
  needs: { pages: true },
  why: 'With the host’s icon in the tab the site looks as if it were not finished.',
  source: 'common practice',
  messages: { expected: 'an icon of the client’s own' },
  judge(context) {
    const { evidence, profile } = context;
    const known = new Set((profile.defaults?.iconHashes ?? []).map((h) => h.toLowerCase()));
    if (!known.size) return inapplicable(msg('no-default-known'));
    const icons = evidence.assets.filter((a) => a.roles.includes('icon') || a.roles.includes('touch-icon'));
    const read = icons.filter((a) => a.sha256 && a.image);
    if (!read.length)
      return icons.length && icons.every((a) => a.chain.end === 'answer')
        ? inapplicable(commonMessage('no-icon'))
        : cantTell(commonMessage('no-icon-readable'));
    const hit = read.find((a) => known.has(a.sha256!));
    return overSite(
      context,
      (hit ? failed : passed)((hit ?? read[0]!).url, {
        found: hit ? msg('default-icon', { name: profile.name }) : msg('icon-own'),
        raw: `SHA-256 ${(hit ?? read[0]!).sha256}`,
      }),
    );
  },
  recipe: () => ({
    steps: 'Upload the client’s icon in the site’s settings; browsers keep the old one for days.',
  }),
});
