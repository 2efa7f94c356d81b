/** Each check for people who know no header from a record: what it is about, and what it means while it fails. */
import type { PlainCheck } from './plain-check';

export const CHECKS_EN: Record<string, PlainCheck> = {
  'identity.title-names-site': [
    'Your name in the browser tab',
    'Your name is missing where people look for it first: in the tab and in search results.',
  ],
  'identity.home-page': ['The right home page', 'Visitors do not meet the home page that was planned.'],
  'identity.no-default-title': ['Page titles of your own', 'Some titles are those the software came with.'],
  'identity.no-default-tagline': [
    'Descriptions of your own',
    'Some descriptions are those the software came with.',
  ],
  'identity.site-name': ['Your name for search engines', 'Search engines are told another name than yours.'],
  'identity.language': [
    'The language of the pages',
    'Screen readers and translators take the pages for another language.',
  ],
  'identity.contact-email': [
    'Your mail address on the site',
    'Visitors do not find the address they are to write to.',
  ],
  'identity.private-addresses': [
    'Private addresses kept off the site',
    'A private mail address can be read by anybody, and by those who send junk.',
  ],
  'identity.email-domain': [
    'A mail address under your own name',
    'The address shown belongs to another name than your site.',
  ],
  'identity.phone': ['Your phone number', 'The phone number is missing or is not the agreed one.'],
  'identity.profile-links': ['Links to your profiles', 'A link leads to somebody else’s profile or to none.'],
  'identity.organisation-data': [
    'Who you are, for search engines',
    'Search engines are not told name, address and logo in their own form.',
  ],
  'identity.default-author': ['The author’s name', 'Pages name an author who does not exist.'],
  'identity.required-pages': [
    'Pages that have to be there',
    'A page that was agreed or that the law asks for cannot be reached.',
  ],
  'identity.no-placeholder-text': ['Filler text', 'Text that was only to fill the space can still be read.'],
  'identity.no-host-badge': ['The hosting firm’s badge', 'The pages carry advertising for the hosting firm.'],
  'identity.theme-colour': [
    'Your colour around the page',
    'On phones the browser is not tinted in your colour.',
  ],
  'identity.copyright-year': [
    'The year in the foot',
    'The year is an old one, and the site looks left alone.',
  ],
  'identity.wording-approved': [
    'Your yes to the wording',
    'Name, tagline and texts still wait for your yes.',
  ],
  'identity.time-zone': [
    'Dates and times as you write them',
    'Dates or times are shown as in another country.',
  ],
  'https.answers': ['The site can be reached safely', 'The site does not answer over a safe connection.'],
  'https.certificate-valid': [
    'The certificate behind the padlock',
    'Browsers warn visitors away from the site.',
  ],
  'https.certificate-names': [
    'The certificate covers every name',
    'Under one of your names browsers warn visitors away.',
  ],
  'https.certificate-days': [
    'The certificate’s end',
    'The certificate ends soon; after that browsers warn visitors away.',
  ],
  'https.certificate-chain': [
    'The certificate is sent whole',
    'Some phones and programs do not trust the site.',
  ],
  'https.certificate-key': [
    'The strength of the certificate',
    'The certificate is weaker than is thought safe today.',
  ],
  'https.protocol': [
    'Up-to-date encryption',
    'Connections may use encryption that is no longer thought safe.',
  ],
  'https.http-redirects': [
    'Everybody gets the safe connection',
    'Visitors who type the address may stay on a connection that others can read.',
  ],
  'https.permanent-redirects': [
    'The way to the safe connection',
    'Search engines take the way to the safe address for a passing one.',
  ],
  'https.few-hops': [
    'A short way to the site',
    'Visitors are sent round before they arrive, which takes time.',
  ],
  'https.hsts': [
    'Browsers remember the safe connection',
    'Browsers do not remember to come over the safe connection.',
  ],
  'https.hsts-safe': [
    'Your other addresses stay reachable',
    'A setting may lock visitors out of another address of yours.',
  ],
  'https.no-mixed-content': [
    'Everything on the page is safe',
    'Parts of pages come over an unsafe connection, and browsers leave them out.',
  ],
  'https.no-insecure-links': ['Links to the safe address', 'Some links still lead to the unsafe address.'],
  'https.secure-forms': [
    'Forms send safely',
    'What visitors type into a form travels where others can read it.',
  ],
  'https.secure-cookies': [
    'Cookies are protected',
    'Cookies could be read on the way or by foreign scripts.',
  ],
  'https.protective-headers': [
    'Protection against misuse of pages',
    'Other sites could show your pages as their own.',
  ],
  'https.no-version-leak': [
    'No hints for attackers',
    'The server tells attackers which version of its software to aim at.',
  ],
  'domain.resolves': ['Your address leads to a server', 'The address leads nowhere.'],
  'domain.own': ['An address of your own', 'The site stands under the hosting firm’s name, not under yours.'],
  'domain.connected': [
    'Your address shows your site',
    'Visitors see the registrar’s or the hosting firm’s page.',
  ],
  'domain.records-match': ['The address settings', 'The settings of your address are not the agreed ones.'],
  'domain.forwarding': [
    'The address forwards to the site',
    'The forwarding does not lead to your site as it should.',
  ],
  'domain.no-stray-records': [
    'No leftovers in the address settings',
    'Old settings send some visitors to an old server.',
  ],
  'domain.every-address': [
    'Every server shows the site',
    'Some visitors reach a server that does not show your site.',
  ],
  'domain.preferred-host': [
    'One address, with or without www',
    'The site stands under several addresses, which divides its rank in search results.',
  ],
  'domain.path-kept': [
    'Links survive the way to the main address',
    'Links to inner pages end on the home page.',
  ],
  'domain.both-hosts': ['Both forms of your address', 'With or without www, one of the two leads nowhere.'],
  'domain.no-apex-alias': [
    'The main address is set up by the rules',
    'The address is set up in a way that can break your mail.',
  ],
  'domain.no-dangling-alias': [
    'No address points at nothing',
    'An address of yours points at a place that somebody else could claim.',
  ],
  'domain.name-servers': [
    'The servers that know your address',
    'The servers that give out your address are not the agreed ones or do not answer.',
  ],
  'domain.delegation-agrees': [
    'The address book agrees',
    'Two places name different servers for your address.',
  ],
  'domain.authorities-agree': [
    'All servers give the same answer',
    'Visitors reach different places, by which server they asked.',
  ],
  'domain.ttl-for-launch': [
    'A quick change on launch day',
    'The change on launch day would take long to reach everybody.',
  ],
  'domain.mail-survives': ['Your mail survives the move', 'After the move your mail would stop arriving.'],
  'domain.ds-fits': [
    'The address’s seal fits the new servers',
    'After the move the address would be taken for a forgery.',
  ],
  'domain.soa': ['Timers of the address', 'Changes of the address may arrive late.'],
  'domain.mail-exchanger': ['Mail can be received', 'Mail to your contact address does not arrive.'],
  'domain.mail-targets': ['The mail servers', 'Mail is sent to a server that cannot be reached.'],
  'domain.spf': ['Who may send mail in your name', 'Your mail may be taken for junk.'],
  'domain.dkim': ['Your mail is signed', 'Your mail may be taken for junk.'],
  'domain.dmarc': ['What happens to forged mail', 'Others can send mail in your name without being noticed.'],
  'domain.no-mail-closed': [
    'No mail in your name',
    'Others can send mail in your name, though you send none.',
  ],
  'domain.caa': ['Who may issue certificates', 'The next certificate could not be issued.'],
  'domain.registration-days': ['The renewal of your address', 'The registration of your address ends soon.'],
  'domain.registration-status': [
    'The registration of your address',
    'The registration is blocked or about to be deleted.',
  ],
  'domain.registration-lock': [
    'The lock on your address',
    'The address could be moved away more easily than it should.',
  ],
  'domain.registrar': [
    'Where your address is registered',
    'The address is registered elsewhere than agreed.',
  ],
  'domain.signed': [
    'The seal on your address',
    'The seal is broken, and many visitors do not reach the site.',
  ],
  'domain.access': [
    'We can get in where we have to',
    'We cannot get into one of the accounts that your site rests on.',
  ],
  'domain.renewal-owner': [
    'Who pays for the renewal',
    'It is not written down who pays for the renewal of your address.',
  ],
  'domain.transfer-ready': ['The move of your address is prepared', 'The move is not prepared yet.'],
  'indexing.kept-out': ['The draft stays out of search engines', 'The draft can turn up in search results.'],
  'indexing.let-in': [
    'Search engines may come in',
    'Pages ask search engines to stay away, and nobody will find them.',
  ],
  'indexing.unexpected-noindex': [
    'No page is hidden by mistake',
    'Pages ask search engines to stay away without a known reason.',
  ],
  'indexing.hidden-kept-out': [
    'Hidden pages stay hidden',
    'Pages that are to stay hidden can turn up in search results.',
  ],
  'indexing.shown-in-full': [
    'Search results show your texts',
    'Search results may show less of your pages than they could.',
  ],
  'indexing.robots-answers': [
    'The note to search engines',
    'Search engines cannot read the note that is meant for them.',
  ],
  'indexing.robots-allows': [
    'The note lets search engines in',
    'The note keeps search engines away from pages.',
  ],
  'indexing.robots-well-formed': [
    'The note is written by the rules',
    'The note has mistakes and may be misread.',
  ],
  'indexing.robots-assets': [
    'Search engines see the page as you do',
    'Search engines may not load what makes the pages look right.',
  ],
  'indexing.robots-no-secrets': [
    'The note gives nothing away',
    'The note tells everybody where private places are.',
  ],
  'indexing.sitemap-found': [
    'The list of pages for search engines',
    'The list of pages is missing or cannot be read.',
  ],
  'indexing.sitemap-limits': ['The list keeps to its limits', 'Parts of the list of pages are not read.'],
  'indexing.sitemap-pages': [
    'The list names the right pages',
    'The list names pages that are not to be found.',
  ],
  'indexing.sitemap-complete': ['The list is complete', 'The list leaves pages out.'],
  'indexing.canonical-present': [
    'Each page names its own address',
    'Search engines have to guess which address of a page counts.',
  ],
  'indexing.canonical-host': [
    'Pages name the right address',
    'Pages send search engines to another address, and may not be found at all.',
  ],
  'indexing.canonical-agrees': [
    'The named addresses are right',
    'Pages name an address that does not lead to them.',
  ],
  'indexing.canonical-own': [
    'Pages stand for themselves',
    'Inner pages tell search engines that they are the home page.',
  ],
  'indexing.no-staging-links': ['No link to the draft', 'Links lead visitors to the draft.'],
  'indexing.not-found-status': ['Missing pages say so', 'Pages that do not exist look as if they did.'],
  'indexing.old-addresses': ['Old links still work', 'Links and bookmarks to your former site lead nowhere.'],
  'indexing.readable-addresses': ['Addresses that can be read', 'Addresses of pages say nothing to people.'],
  'indexing.no-holding-page': [
    'The “coming soon” page is off',
    'Visitors still meet the “coming soon” page.',
  ],
  'indexing.holding-page-gone': [
    'The “coming soon” page is gone',
    'The former “coming soon” page can still be found.',
  ],
  'indexing.holding-page': [
    'The “coming soon” page',
    'The “coming soon” page lacks something that visitors or search engines need.',
  ],
  'indexing.staging-closed': ['The draft is closed', 'The draft can still be visited and found.'],
  'indexing.links-answer': ['Links within the site', 'Links lead to pages that are not there.'],
  'indexing.links-direct': ['Links lead straight there', 'Links take a detour.'],
  'indexing.outside-links': ['Links to other sites', 'Links to other sites lead nowhere.'],
  'indexing.alternates': [
    'Pages in other languages know each other',
    'Visitors may be shown the wrong language.',
  ],
  'indexing.no-duplicates': ['Each page once', 'A page stands at two addresses, which divides its rank.'],
  'indexing.handed-in': [
    'Search engines were told of the site',
    'Search engines have not been told of the site yet.',
  ],
  'verification.tokens-present': [
    'Proof that the site is yours',
    'A service does not know any more that the site is yours.',
  ],
  'verification.tokens-own': ['Nobody else’s proof', 'The site carries another firm’s proof of ownership.'],
  'verification.tokens-known': [
    'Only known proofs',
    'The site carries a proof of ownership that nobody knows.',
  ],
  'verification.analytics-present': ['Visits are counted', 'Visits to some pages are not counted.'],
  'verification.analytics-once': ['Visits are counted once', 'Visits are counted twice.'],
  'verification.analytics-own': ['Visits are counted for you', 'Visits are counted for somebody else.'],
  'verification.analytics-off-staging': [
    'The draft is not counted',
    'Our own visits to the draft are counted as your visitors.',
  ],
  'verification.consent-first': ['Visitors are asked first', 'Measuring begins before visitors are asked.'],
  'verification.script-placement': [
    'Added services stand in their place',
    'An added service does not stand where it should.',
  ],
  'verification.scripts-expected': [
    'Only agreed outside services',
    'The site loads something from a service that was not agreed.',
  ],
  'verification.scripts-once': ['Services load once', 'A service is loaded twice, which takes time.'],
  'verification.nothing-before-consent': [
    'Nothing is stored before the yes',
    'Something is measured or stored before visitors agree.',
  ],
  'verification.hits-seen': ['A visit really is counted', 'The counting does not fire, or fires twice.'],
  'metadata.title-present': [
    'Every page has a title',
    'A page has no title in the tab and in search results.',
  ],
  'metadata.title-length': ['Titles fit into search results', 'Titles are cut off or say too little.'],
  'metadata.title-unique': ['Titles differ', 'Pages cannot be told apart in search results.'],
  'metadata.description-present': [
    'Every page has a description',
    'Search results show any sentence of the page.',
  ],
  'metadata.description-length': [
    'Descriptions fit into search results',
    'Descriptions are cut off or say too little.',
  ],
  'metadata.description-unique': [
    'Descriptions differ',
    'Pages say the same of themselves in search results.',
  ],
  'metadata.description-names-site': [
    'Your name in the description',
    'The description of the home page does not name you.',
  ],
  'metadata.key-phrases': [
    'The words people search for',
    'Title and description lack the words that people search for.',
  ],
  'metadata.not-inherited': ['Texts of the page’s own', 'Pages show the site’s general text.'],
  'metadata.as-intended': [
    'Titles and descriptions as written',
    'Texts that were written for a page are not on it.',
  ],
  'metadata.charset': ['Letters show as they should', 'Special letters may show as signs.'],
  'metadata.viewport': ['Pages suit a phone', 'On a phone the pages are too small or cannot be enlarged.'],
  'metadata.one-main-heading': [
    'One main heading a page',
    'Screen readers cannot tell what a page is about.',
  ],
  'metadata.heading-order': ['Headings in order', 'Headings skip a level, which makes reading aloud harder.'],
  'metadata.image-text': [
    'Pictures are described',
    'People who cannot see a picture are not told what it shows.',
  ],
  'metadata.control-names': [
    'Buttons and fields have a name',
    'People who use a screen reader do not know what a button does.',
  ],
  'metadata.structured-data': [
    'Facts for search engines',
    'Facts that search engines could show cannot be read.',
  ],
  'metadata.no-refresh': ['Pages stay where they are', 'A page moves on by itself while it is read.'],
  'metadata.hand-accessibility': [
    'Usable by everybody',
    'Keyboard and contrast still have to be looked through.',
  ],
  'sharing.preview-complete': ['How a shared link looks', 'A shared link shows without picture or text.'],
  'sharing.image-loads': ['The picture of a shared link', 'A shared link shows no picture.'],
  'sharing.image-description': [
    'The shared picture is described',
    'People who cannot see the shared picture are not told what it shows.',
  ],
  'sharing.image-size': [
    'The size of the shared picture',
    'The picture of a shared link is small or cut off.',
  ],
  'sharing.image-weight': [
    'The weight of the shared picture',
    'The picture is too heavy, and some services leave it out.',
  ],
  'sharing.address-agrees': ['Shares are counted together', 'Shares of one page are counted as of two.'],
  'sharing.text-own': ['The text of a shared link', 'A shared link shows a text that is not yours.'],
  'sharing.card': ['The form of a shared link', 'Some services show a shared link small.'],
  'sharing.favicon': ['The small icon in the tab', 'The icon is missing or cannot be shown.'],
  'sharing.icon-sharp': ['The icon is sharp', 'The icon looks soft on good screens.'],
  'sharing.icon-sizes-true': ['The icon’s sizes', 'Browsers pick the wrong size of the icon.'],
  'sharing.touch-icon': ['The icon on phones', 'Kept on a phone’s home screen, the site has no proper icon.'],
  'sharing.icon-own': ['An icon of your own', 'The icon is the hosting firm’s.'],
  'sharing.manifest': [
    'Kept on the home screen',
    'Kept on a home screen, the site does not show as it should.',
  ],
  'delivery.staging-locked': ['The draft is locked', 'Anybody who has the address can see the draft.'],
  'delivery.staging-lifetime': ['The draft stays there', 'The draft is switched off soon.'],
  'delivery.matches-build': ['Everything was uploaded', 'Some files are missing or old.'],
  'delivery.live-equals-staging': [
    'The site is what was shown',
    'The site differs from what was shown to you.',
  ],
  'delivery.fresh': ['Visitors see the newest page', 'Visitors may see an old copy.'],
  'delivery.no-server-errors': ['Pages open without an error', 'A page answers with an error.'],
  'delivery.no-exposed-files': ['Private files are private', 'Private files can be read by anybody.'],
  'delivery.no-directory-listing': ['Folders stay closed', 'Anybody can look into folders of the site.'],
  'delivery.response-time': ['The site answers quickly', 'Visitors wait before anything happens.'],
  'delivery.page-weight': ['Pages are light', 'Pages are heavy, and slow on phones.'],
  'delivery.picture-weight': ['Pictures are light', 'A picture is so heavy that it slows the page.'],
  'delivery.compressed': ['Texts are sent compressed', 'Pages take longer than they need.'],
  'delivery.cached': [
    'Returning visitors wait less',
    'Returning visitors load again what they have already.',
  ],
  'delivery.fonts-used': ['Only fonts that are used', 'A font is named that no text uses.'],
  'delivery.form-sender': ['Forms name you', 'A form still names the hosting firm as sender.'],
  'delivery.comments': ['Comments as agreed', 'Comments are open or closed, other than agreed.'],
  'delivery.security-contact': [
    'Where to report a gap',
    'The note for people who find a security gap has run out.',
  ],
  'delivery.script-errors': ['The page’s programs run', 'Something on a page may not work when it is used.'],
  'delivery.requests-fail': ['Everything on the page arrives', 'A part of a page does not arrive.'],
  'delivery.phone-fits': [
    'Pages fit a phone',
    'On a phone pages are wider than the screen, or too small to read.',
  ],
  'delivery.layout-still': [
    'The page stays still while it loads',
    'Things jump while the page loads, and people press the wrong one.',
  ],
  'delivery.rendered-agrees': [
    'Search engines and visitors see the same',
    'Search engines may be shown another text than visitors.',
  ],
  'delivery.backup': ['A backup that works', 'There is no recent backup, or nobody has tried it.'],
  'delivery.forms-arrive': [
    'Mail from forms arrives',
    'Nobody has tried yet whether mail from the forms arrives.',
  ],
  'delivery.accounts': [
    'Safe accounts',
    'Accounts or passwords that came with the software are still there.',
  ],
  'delivery.plan-fits': ['The hosting plan fits', 'The hosting plan does not cover all that the site needs.'],
  'delivery.upkeep': ['The monthly upkeep', 'The upkeep of this month is still to be done.'],
  'delivery.small-screen': [
    'Looked through on a phone',
    'Nobody has looked through all pages on a phone yet.',
  ],
  'delivery.client-approval': ['Your yes', 'The site waits for your yes, or has changed since.'],
  'domain.mta-sts': [
    'Mail to you over encrypted connections',
    'Senders that check it may not deliver your mail safely, or not at all.',
  ],
  'domain.tls-reports': [
    'Reports of mail that could not be encrypted',
    'Nobody hears when mail to you could not be delivered safely.',
  ],
};
