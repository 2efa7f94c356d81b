import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.no-directory-listing', {
  listing: 'a list of its files',
});

/** What the listings of common servers begin with (common practice, from memory). */
const LISTING =
  /<title>\s*(?:Index of \/|Directory (?:listing|index)|Listing directory)|<h1>\s*(?:Index of \/|Directory listing)|\[To Parent Directory\]/i;

export const noDirectoryListing = defineCheck({
  id: 'delivery.no-directory-listing',
  title: 'Directory listings are off',
  fault: 'A directory listing is on',
  severity: 'minor',
  situations: ['live'],
  scope: 'path',
  facts: ['folders'],
  needs: { pages: true },
  why: 'A list shows every file that was ever uploaded, also those that nothing links to.',
  source: 'common practice',
  messages: { expected: 'no list', unit: 'folder', none: 'no folder holds files without a page of its own' },
  judge(context) {
    const { evidence } = context;
    return overPlaces(
      context,
      evidence.folders.map((f) => {
        const status = finalStatus(f.chain);
        if (status === undefined)
          return unsure(f.path, verbatim(f.chain.error?.message) ?? commonMessage('no-answer'));
        return status === 200 && LISTING.test(f.sample ?? '')
          ? failed(f.path, { found: msg('listing'), raw: f.sample })
          : passed(f.path, { found: commonMessage('status', { status }) });
      }),
    );
  },
  recipe: () => ({
    steps: 'Switch listings off, for the whole server, or put a page into each of these folders.',
    paste: [
      { label: 'Apache', text: 'Options -Indexes' },
      { label: 'nginx', text: 'autoindex off;' },
    ],
  }),
});
