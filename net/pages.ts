/** The pages of a practice site, written from a template. */
import {
  counterOf,
  counterScript,
  hostFacts,
  mailOf,
  otherClientOf,
  preferredHost,
  profileOf,
  SHOAL,
  tokenOf,
  type PracticeSite,
} from './sites';

export interface PageData {
  path: string;
  title: string;
  description: string;
  heading: string;
  paragraphs: string[];
  form?: boolean;
}

const slugOf = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];
const WEATHER = [
  'a dry wind from the hills',
  'rain before noon',
  'mist on the flats',
  'a hard frost',
  'sun between showers',
  'a spring tide',
  'a falling glass',
];

const known = new Map<PracticeSite, PageData[]>();
/** All pages of a site; the first is the home page. */
export function pagesOf(s: PracticeSite): PageData[] {
  let pages = known.get(s);
  if (!pages) known.set(s, (pages = writePages(s)));
  return pages;
}

function writePages(s: PracticeSite): PageData[] {
  const t = s.things;
  const page = (
    path: string,
    label: string,
    description: string,
    paragraphs: string[],
    form = false,
  ): PageData => ({
    path,
    title: path === '/' ? `${s.name} – ${s.tagline}` : `${label} – ${s.name}`,
    description,
    heading: path === '/' ? s.name : label,
    paragraphs,
    form,
  });
  const many = t.items.length > 60;
  return [
    page(
      '/',
      'Home',
      `${s.name} on the Sallow Firth: ${s.tagline.toLowerCase()}. Hours, ${t.label.toLowerCase()} and how to reach us.`,
      [
        `${s.tagline}. ${s.name} is a ${s.kind} at the edge of the Sallow Firth, ten minutes on foot from the quay.`,
        `Begin with ${t.items.slice(0, 2).join(' or ')}, or look at everything under ${t.label}.`,
        'The firth is wide here and the light changes quickly; bring a coat and an hour more than you planned.',
      ],
    ),
    page(
      '/about/',
      'About us',
      `How ${s.name} came to the Sallow Firth, who looks after it, and what is planned for next year.`,
      [
        `${s.name} began as the idea of seven neighbours around a kitchen table. A ${s.kind} of our own seemed a bold plan for so small a town.`,
        'Today a team of volunteers and three paid hands keep the doors open all year, whatever the weather does.',
      ],
    ),
    page(
      '/visit/',
      'Visit',
      `Opening hours, tickets and the way to ${s.name}: by ferry, by tram, on foot along the sea wall or by bicycle.`,
      [
        'Open from Wednesday to Sunday, ten in the morning to five in the afternoon, later in summer.',
        'From the harbour follow the blue posts along the sea wall. The house has a ramp, a lift and a quiet room.',
      ],
    ),
    page(
      `/${t.path}/`,
      t.label,
      `All ${t.label.toLowerCase()} of ${s.name} at a glance, with a few words on each and what to know before you come.`,
      [
        `These are our ${t.label.toLowerCase()} this year. Each has a page of its own with the details.`,
        ...(many
          ? ['The list is long; the newest stand first.']
          : t.items.map((i) => `${i}: ask at the desk, or read on.`)),
      ],
    ),
    ...t.items.map((item, n) =>
      page(
        `/${t.path}/${slugOf(item)}/`,
        item,
        `${item} at ${s.name}: what it is, when to come for it, and why number ${n + 1} is worth the way.`,
        [
          `${item} is ${many ? `number ${n + 1}` : `the ${ORDINALS[n] ?? `${n + 1}th`}`} of our ${t.label.toLowerCase()} and has friends of its own.`,
          `Visitors often ask how ${item} got its name. The answer takes about as long as a cup of tea, and we like to give it in person.`,
          ...(many
            ? [
                `${7 + ((n * 13) % 83)} were counted, with ${WEATHER[n % WEATHER.length]!} and ${(n * 17) % 47} minutes of patience; the tally of ${item} stands in book ${1 + Math.floor(n / 90)}.`,
              ]
            : ['Groups are welcome if they write to us first.']),
        ],
      ),
    ),
    page(
      '/news/',
      'News',
      `What is new at ${s.name}: dates, repairs, small triumphs and lost gloves, told by those who work here.`,
      [
        'The roof has held through its first storm of the season, and the new benches have arrived.',
        'Volunteers meet on the first Monday of the month; newcomers are given the good biscuits.',
      ],
    ),
    page(
      '/contact/',
      'Contact',
      `Write to ${s.name}, call us, or send a message with the form; we answer on weekdays before the tide turns.`,
      [
        `Write to ${mailOf(s)} or call ${s.phone}.`,
        'Our post box is by the green door. We answer on weekdays.',
      ],
      true,
    ),
  ];
}

/** Pages that are there only while a fault is on. */
export function extraPages(s: PracticeSite, on: (f: string) => boolean): PageData[] {
  const visit = pagesOf(s)[2]!;
  return [
    ...(on('number-address')
      ? [
          {
            path: '/offers/17/',
            title: `Offers of the season – ${s.name}`,
            description: `What ${s.name} offers this season to groups, schools and people who come twice a week.`,
            heading: 'Offers',
            paragraphs: [
              'Twice a week is cheaper, and four times cheaper still.',
              'Schools write to us in spring.',
            ],
          },
        ]
      : []),
    ...(on('twin-page')
      ? [
          {
            ...visit,
            path: '/visit-us/',
            title: `Come and see us – ${s.name}`,
            description: `Come and see ${s.name}: hours, tickets and directions by ferry, tram, bicycle and on foot.`,
          },
        ]
      : []),
  ];
}

export interface PageSetting {
  site: PracticeSite;
  origin: string;
  prefix: string;
  environment: 'live' | 'staging';
  on: (fault: string) => boolean;
  year: number;
  stagingOrigin: string;
}

const esc = (t: string): string => t.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
const icon = (prefix: string, size: number, shown = size): string =>
  `<link rel="icon" type="image/png" sizes="${shown}x${shown}" href="${prefix}icon-${size}.png">`;
const STRANGER = `${SHOAL}template-maker`;

/** One page about to be written, with the questions that its parts ask. */
class Writing {
  readonly s: PracticeSite;
  readonly host: ReturnType<typeof hostFacts>;
  readonly live: boolean;
  readonly isHome: boolean;
  /** Which page of the site it is. */
  readonly n: number;

  constructor(
    readonly data: PageData,
    readonly all: PageData[],
    readonly set: PageSetting,
  ) {
    this.s = set.site;
    this.host = hostFacts(set.site.host);
    this.live = set.environment === 'live';
    this.isHome = data.path === '/';
    this.n = all.indexOf(data);
  }

  /** Whether a fault is on that shows on this page: on all of them, or on those named by their numbers. */
  readonly is = (fault: string, ...pages: number[]): boolean =>
    this.set.on(fault) && (!pages.length || pages.includes(this.n));

  /** The same, on the home page. */
  readonly isAtHome = (fault: string): boolean => this.isHome && this.set.on(fault);

  /** The same, on the live site. */
  readonly isLive = (fault: string, ...pages: number[]): boolean => this.live && this.is(fault, ...pages);
}

/** A text where something is so, or nothing. */
const when = (so: boolean, text: string): string => (so ? text : '');
/** The value of the first case that is so. */
function firstOf<V>(cases: [so: boolean, value: () => V][], otherwise: V): V {
  return cases.find(([so]) => so)?.[1]() ?? otherwise;
}

const titleOf = ({ s, data, all, is, isAtHome }: Writing): string =>
  firstOf(
    [
      [isAtHome('nameless-title'), () => `${s.tagline}, all the year round`],
      [is('text-typed-over', 3), () => `Everything else – ${s.name}`],
      [is('default-title', 2), () => 'Untitled page'],
      [is('same-title', 2), () => all[1]!.title],
      [is('inherited-title', 1), () => s.name],
      [
        is('long-title', 1),
        () => `${data.title}, its beginnings, its people, its plans and its many friends`,
      ],
    ],
    data.title,
  );

const descriptionOf = ({ s, host, data, all, is, isAtHome }: Writing): string =>
  firstOf(
    [
      [is('no-description', 1, 2), () => ''],
      [is('same-description'), () => all[0]!.description],
      [is('default-tagline', 1), () => host.defaults.taglines[0]!],
      [is('short-description', 1), () => 'All about us.'],
      [isAtHome('nameless-description'), () => data.description.replace(s.name, 'The house')],
      [
        isAtHome('phraseless'),
        () =>
          `${s.name} on the Sallow Firth: a ${s.kind} by the quay. Opening hours, ${s.things.label.toLowerCase()} and how to reach us.`,
      ],
    ],
    data.description,
  );

const ownAddress = ({ s, data }: Writing): string => `https://${preferredHost(s)}${data.path}`;

function canonicalOf(w: Writing): string {
  const { s, data, all, set, is } = w;
  const root = `https://${preferredHost(s)}`;
  return firstOf(
    [
      [is('staging-canonical'), () => `${set.stagingOrigin}${data.path.slice(1)}`],
      [is('canonical-home'), () => `${root}/`],
      [is('canonical-chain', 1), () => `${root}${all[2]!.path}`],
      [is('canonical-chain', 2), () => `${root}${all[3]!.path}`],
    ],
    ownAddress(w),
  );
}

/** What search engines are told. */
function indexingTags(w: Writing): string[] {
  const { s, data, live, isHome, is, isLive } = w;
  const atHome = live && isHome;
  const language = is('wrong-alternate', 1) ? 'en-UK' : 'en-GB';
  const token = (site: PracticeSite): string =>
    `<meta name="sallow-site-verification" content="${tokenOf(site)}">`;
  return [
    when(live && !is('no-canonical', 1, 2), `<link rel="canonical" href="${canonicalOf(w)}">`),
    when(live, `<link rel="alternate" hreflang="${language}" href="${ownAddress(w)}">`),
    when(isLive('noindex-left'), '<meta name="robots" content="noindex, nofollow">'),
    when(isLive('noindex-inside') && data.path === '/news/', '<meta name="robots" content="noindex">'),
    when(isLive('nofollow-left', 1), '<meta name="robots" content="nofollow">'),
    when(atHome && !is('token-gone'), token(s)),
    when(atHome && is('borrowed-token'), token(otherClientOf(s))),
    when(atHome && is('strange-token'), '<meta name="estuary-verify" content="someone-elses-4711">'),
  ];
}

/** Faults of the head that stand on their own; `npm run new-check` adds to them. */
function plantedTags({ is }: Writing): string[] {
  return [
    when(is('refresh', 1), '<meta http-equiv="refresh" content="30">'),
    when(is('title-by-script', 1), '<script>document.title = "Welcome";</script>'),
    when(is('visitor-cookie'), '<script>document.cookie = "tide_visitor=4711; path=/; secure";</script>'),
    when(is('counts-early'), '<script>window.tidemarkEarly = true;</script>'),
    when(is('counted-double'), '<script>window.tidemarkTwice = true;</script>'),
    when(is('script-error', 1), '<script>openMenu("main");</script>'),
  ];
}

const siteName = ({ s, is }: Writing): string => (is('wrong-site-name') ? 'Template House' : s.name);

/** What a shared link shows. */
function shareTags(w: Writing): string[] {
  const { s, data, set, live, is } = w;
  const base = `${set.origin}${set.prefix}`;
  const file = firstOf(
    [
      [is('picture-gone'), () => 'share-old.png'],
      [is('picture-small'), () => 'share-small.png'],
      [is('picture-heavy'), () => 'share-heavy.png'],
    ],
    'share.png',
  );
  const address = firstOf(
    [
      [is('share-elsewhere', 1), () => base],
      [live && !is('http-stays'), () => canonicalOf(w)],
    ],
    base + data.path.slice(1),
  );
  return [
    `<meta property="og:title" content="${is('share-default') ? 'Home' : esc(data.title)}">`,
    `<meta property="og:description" content="${esc(data.description)}">`,
    '<meta property="og:type" content="website">',
    `<meta property="og:url" content="${address}">`,
    when(!is('no-preview'), `<meta property="og:image" content="${base}${file}">`),
    when(
      !is('no-preview') && !is('picture-mute'),
      `<meta property="og:image:alt" content="${esc(s.name)} seen from the water">`,
    ),
    `<meta property="og:site_name" content="${esc(siteName(w))}">`,
    when(!is('no-card'), '<meta name="twitter:card" content="summary_large_image">'),
  ];
}

/** Style sheet, manifest and icons. */
function fileTags({ s, set, live, is }: Writing): string[] {
  const { prefix } = set;
  const touch = s.host === 'Fennel Hosting' ? '240x240' : '180x180';
  const dense = is('icon-soft') ? [] : [128, 192, 240];
  const icons = [
    icon(prefix, 48, is('icon-lies') ? 32 : 48),
    icon(prefix, 32),
    ...dense.map((z) => icon(prefix, z)),
  ];
  return [
    `<link rel="stylesheet" href="${prefix}style.3f9a1c2b.css">`,
    when(live, `<link rel="manifest" href="${prefix}site.webmanifest">`),
    when(!is('no-icon'), icons.join('\n')),
    when(!is('no-touch-icon'), `<link rel="apple-touch-icon" sizes="${touch}" href="${prefix}touch.png">`),
  ];
}

const CONSENT = '<script src="https://consent.tidemark.example/ask.js"></script>';
const FONTS = '<script src="https://fonts.tidemark.example/f.js"></script>';

/** Scripts that count, and the one that asks first. */
function counterTags({ s, live, is, isLive }: Writing): string[] {
  const own = counterScript(counterOf(s));
  const isCounted = live ? !is('uncounted', 2) : is('counted-staging');
  const counters = [
    when(isCounted, own),
    when(isCounted && isLive('counted-twice'), own),
    when(is('borrowed-counter', 1), counterScript(counterOf(otherClientOf(s)))),
  ];
  return is('late-consent') ? [...counters, CONSENT] : [CONSENT, ...counters];
}

function scriptTags(w: Writing): string[] {
  const { set, is } = w;
  return [
    when(is('mixed', 0, 1), '<script src="http://widgets.tidemark.example/clock.js"></script>'),
    when(is('script-twice'), FONTS + FONTS),
    when(is('strange-script', 1), '<script src="https://cdn.gull-ads.example/a.js"></script>'),
    ...counterTags(w),
    when(is('script-early', 1), `<script src="${set.prefix}app.js" defer></script>`),
  ];
}

function dataTags(w: Writing): string[] {
  const { s, is } = w;
  const root = `https://${preferredHost(s)}/`;
  const organisation = {
    '@context': 'https://schema.org',
    '@type': 'Organization',
    name: siteName(w),
    url: root,
    telephone: is('wrong-phone') ? wrong(s.phone) : s.phone,
    ...(is('no-organisation') ? {} : { logo: `${root}logo.png` }),
  };
  return [
    `<script type="application/ld+json">${JSON.stringify(organisation)}</script>`,
    when(
      is('broken-ld', 1),
      '<script type="application/ld+json">{"@context":"https://schema.org","@type":"Event",}</script>',
    ),
  ];
}

/** What the head says of a page, with the faults that change it. */
function headOf(w: Writing): string[] {
  const { s, is } = w;
  const description = descriptionOf(w);
  const zoom = is('no-viewport') ? ', user-scalable=no' : '';
  return [
    when(!is('latin'), '<meta charset="utf-8">'),
    when(!is('no-title', 1), `<title>${esc(titleOf(w))}</title>`),
    when(description !== '', `<meta name="description" content="${esc(description)}">`),
    `<meta name="viewport" content="width=device-width, initial-scale=1${zoom}">`,
    ...indexingTags(w),
    ...plantedTags(w),
    `<meta name="theme-color" content="${is('wrong-colour') ? '#ff00aa' : s.colour}">`,
    ...shareTags(w),
    ...fileTags(w),
    ...scriptTags(w),
    ...dataTags(w),
  ].filter(Boolean);
}

const wrong = (phone: string): string => phone.replace(/\d$/, (d) => String((Number(d) + 1) % 10));

/** The form of the contact page. */
function formOf({ s, set, host, is }: Writing, phone: string): string {
  const { prefix } = set;
  const origin = is('form-http') ? set.origin.replace('https:', 'http:') : '';
  const mail = is('foreign-mail') ? 'info@template-maker.example' : mailOf(s, is('free-mail'));
  const sender = when(
    is('default-sender'),
    `<input type="hidden" name="from" value="${host.defaults.formSenders[0]}">`,
  );
  return `<p>Mail: <a href="mailto:${mail}">write to us</a>, phone: <a href="tel:${phone.replace(/\s/g, '')}">${phone}</a></p>
<form id="contact" action="${origin}${prefix}contact/send" method="post">${sender}<label>Name <input name="name"></label><label>Mail <input name="mail" type="email"></label><label>Message <textarea name="message"></textarea></label><button>Send</button></form>`;
}

function navOf(w: Writing): string {
  const { s, all, set, isHome, isAtHome } = w;
  const top = all.filter((p) => !p.path.slice(1, -1).includes('/'));
  const shown = isHome ? [...top, ...extraPages(s, set.on)] : top;
  return shown
    .filter((p) => !(isAtHome('unlinked') && p.path === '/visit/'))
    .map(
      (p) =>
        `<li><a href="${set.prefix}${p.path.slice(1)}">${p.path === '/' ? 'Home' : esc(p.heading)}</a></li>`,
    )
    .join('');
}

/** The list of what stands below a page. */
function belowOf({ s, data, all, set }: Writing): string {
  if (data.path !== `/${s.things.path}/`) return '';
  const items = all
    .filter((p) => p.path.startsWith(data.path) && p !== data)
    .map((p) => `<li><a href="${set.prefix}${p.path.slice(1)}">${esc(p.heading)}</a></li>`);
  return `<ul>${items.join('')}</ul>`;
}

/** Comes late, and above everything. */
const NOTICE = `setTimeout(() => {
  const notice = document.createElement("p");
  notice.style.height = "300px";
  notice.textContent = "The ferry runs late today.";
  document.querySelector("main").prepend(notice);
}, 300);`;

/** Lines that only a fault puts onto a page, one after the other. */
function faultLines({ s, data, set, live, is, isLive }: Writing): string[] {
  const { prefix } = set;
  const isNews = data.path === '/news/';
  return [
    when(is('filler', 1), '<p>Lorem ipsum dolor sit amet, consectetur adipiscing elit.</p>'),
    when(is('private-mail', 1), '<p>Keys: <a href="mailto:owner.private@firth-mail.example">owner</a></p>'),
    when(isLive('staging-links', 2), `<p><a href="${set.stagingOrigin}">The old timetable</a></p>`),
    when(is('http-links', 2), `<p><a href="http://${preferredHost(s)}/about/">About us</a></p>`),
    when(live && is('link-detour', 2), '<p><a href="/old-gate/">The old gate</a></p>'),
    when(is('outside-dead', 1), '<p><a href="https://lapsed-friends.example/">Friends of ours</a></p>'),
    when(is('changed-since-yes', 1), '<p>From next month we open an hour later, and close on Mondays.</p>'),
    when(is('camera-picture', 1), `<img src="${prefix}pictures/camera.png" alt="The quay at noon">`),
    when(is('dead-link', 1), `<p><a href="${prefix}summer-party/">The summer party</a></p>`),
    when(is('request-gone', 1), `<script>fetch("${prefix}hours.json");</script>`),
    when(
      is('too-wide', 1),
      '<table style="width: 900px"><tr><td>Monday</td><td>Tuesday</td><td>Wednesday</td></tr></table>',
    ),
    when(is('layout-jumps', 1), `<script>${NOTICE}</script>`),
    when(is('nameless-button', 1), '<button><svg width="10" height="10"></svg></button>'),
    when(
      isNews && is('comments-open'),
      `<form id="commentform" action="${prefix}news/comment" method="post"><label>Comment <textarea name="comment"></textarea></label><button>Post comment</button></form>`,
    ),
  ];
}

function picturesOf({ s, set, isHome, is, isLive }: Writing): string {
  const alt = when(!is('no-alt'), ` alt="A view of the firth near ${esc(s.name)}"`);
  const heavy = when(
    isHome && isLive('heavy-page'),
    `<img src="${set.prefix}pictures/heavy.png" alt="The firth in every detail">`,
  );
  return `<img src="${set.prefix}pictures/view.png" width="600" height="300"${alt}>${heavy}`;
}

function bylineOf({ data, host, is }: Writing): string {
  const author = is('default-author') ? host.defaults.authors[0] : 'The people at the desk';
  return when(data.path === '/news/', `<p class="byline author">${author}</p>`);
}

function footerOf({ s, set, host, is }: Writing): string {
  const year = is('old-year') ? set.year - 4 : set.year;
  const profile = is('strange-profile') ? STRANGER : profileOf(s);
  const badge = when(is('host-badge'), ` <a href="https://www.${host.suffix}/">${host.badge[0]}</a>`);
  return `<footer><p>© ${year} ${esc(s.name)}. <a href="${set.prefix}contact/">Contact</a> <a href="${profile}">Shoal</a>${badge}</p></footer>`;
}

const withoutFault = (set: PageSetting, fault: string): PageSetting => ({
  ...set,
  on: (id) => id !== fault && set.on(id),
});

/** A page as an empty shell, with a script that puts its title and its body there. */
function scriptBuilt(page: string, prefix: string): string {
  const [, title = ''] = /<title>([^<]*)<\/title>/.exec(page) ?? [];
  const [, body = ''] = /<body>([\s\S]*)<\/body>/.exec(page) ?? [];
  const made = JSON.stringify([title, body.replace(/<script[^>]*><\/script>/g, '')]).replaceAll(
    '<',
    '\\u003c',
  );
  return page.replace(/<title>[^<]*<\/title>/, '<title>Loading</title>').replace(
    /<body>[\s\S]*<\/body>/,
    () =>
      `<body><div id="app"></div><script src="${prefix}app.js"></script><script>const [title, body] = ${made};
const text = document.createElement("textarea");
text.innerHTML = title;
document.title = text.value;
document.getElementById("app").innerHTML = body;</script></body>`,
  );
}

/** One page as HTML, with the faults that are switched on. */
export function renderPage(data: PageData, all: PageData[], set: PageSetting): string {
  const w = new Writing(data, all, set);
  const { s, isHome, is, isLive } = w;
  const { prefix } = set;
  const head = headOf(w).join('\n');
  if (is('app-shell') && !isHome)
    return `<!doctype html>\n<html lang="en-GB">\n<head>\n${head}\n</head>\n<body><div id="app"></div><script src="${prefix}app.js"></script></body>\n</html>`;
  if (is('script-built') && !isHome)
    return scriptBuilt(renderPage(data, all, withoutFault(set, 'script-built')), prefix);
  const phone = is('wrong-phone') ? wrong(s.phone) : s.phone;
  const changed = isLive('text-changed', 1) ? ['We are closed until further notice.'] : [];
  const published = isLive('publish-behind', 1) ? data.paragraphs.slice(0, 1) : data.paragraphs;
  const paragraphs = [...published, ...changed].map((p) => `<p>${esc(p.replace(s.phone, phone))}</p>`);
  const headings =
    when(is('two-headings', 1), '<h1>Welcome</h1>') + when(is('skipped-heading', 1), '<h4>How it began</h4>');
  return `<!doctype html>
<html lang="${is('wrong-language') ? 'en-UK' : 'en-GB'}">
<head>
${head}
</head>
<body>
<header><p><a href="${prefix}">${esc(s.name)}</a></p><nav><ul>${navOf(w)}</ul></nav></header>
<main>
<h1>${esc(data.heading)}</h1>
${headings}
${picturesOf(w)}
${paragraphs.join('\n')}
${bylineOf(w)}
${faultLines(w).join('\n')}
${belowOf(w)}
${when(Boolean(data.form), formOf(w, phone))}
</main>
${footerOf(w)}
${when(!is('script-early', 1), `<script src="${prefix}app.js" defer></script>`)}
</body>
</html>`;
}

const simple = (title: string, body: string, head = ''): string =>
  `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${esc(title)}</title><meta name="viewport" content="width=device-width, initial-scale=1">${head}</head><body>${body}</body></html>`;

export function holdingPage(s: PracticeSite, rude: boolean): string {
  return simple(
    s.name,
    `<h1>${esc(s.name)}</h1><p>Something is being built here. Our new site is on its way.</p>${rude ? '' : `<p>Write to <a href="mailto:${mailOf(s)}">${mailOf(s)}</a>.</p>`}`,
    `<link rel="icon" href="/icon-48.png">${rude ? '' : '<meta name="robots" content="noindex">'}`,
  );
}
/** A page that visitors meet after they sent the form; no link leads there. */
export function thanksPage(s: PracticeSite, kept: boolean): string {
  return simple(
    `Thank you – ${s.name}`,
    `<h1>Thank you</h1><p>Your message to ${esc(s.name)} is on its way.</p>`,
    kept ? '<meta name="robots" content="noindex">' : '',
  );
}
/** A profile on the network that the sites of the firth are on. */
export function profilePage(name: string): string {
  return simple(`${name} on Shoal`, `<h1>${esc(name)}</h1><p>Pictures and small news.</p>`);
}
export function parkingPage(domain: string): string {
  return simple(
    domain,
    `<h1>${esc(domain)}</h1><p>This name is registered and resting. Perhaps you want a name of your own?</p>`,
  );
}
export function unknownPage(mark: string): string {
  return simple('Nothing here', `<p>${esc(mark)}.</p>`);
}
export function challengePage(): string {
  return simple(
    'One moment, please',
    '<p>Checking your browser before you go on.</p><script src="/challenge.js"></script>',
  );
}
export function listingPage(path: string): string {
  return simple(`Index of ${path}`, `<h1>Index of ${path}</h1><pre><a href="view.png">view.png</a></pre>`);
}
export function samplePage(): string {
  return simple(
    'My Fennel site',
    '<h1>Your Fennel site is ready to grow</h1><p>This is a sample page. Change it in the editor.</p>',
  );
}
/** What pages of an old site are about: title and a sentence. */
const FORMER_PAGES: Record<string, [title: string, text: string]> = {
  '/': ['Welcome', 'They have served since the long summer and will soon make room.'],
  '/history.html': [
    'About us and our history',
    'About us: who we are, how it all began, and who helps today.',
  ],
  '/prices.html': [
    'Visit: opening hours and prices',
    'Visit us: when we are open, how to get here, what it costs.',
  ],
  '/contact.html': ['Contact', 'Write, call, or come by.'],
  '/links.html': ['Links', 'Friends elsewhere.'],
  '/guestbook.html': ['Guestbook', 'Closed since spring.'],
};

export function formerPage(s: PracticeSite, path: string): string {
  const [title, text] = FORMER_PAGES[path] ?? FORMER_PAGES['/']!;
  const pages = Object.keys(FORMER_PAGES);
  return simple(
    `${path === '/' ? '' : `${title} – `}${s.name} (old site)`,
    `<h1>${esc(title)}</h1><p>The old pages of ${esc(s.name)}, page ${esc(path)}. ${text}</p><ul>${pages.map((p) => `<li><a href="${p}">${p}</a></li>`).join('')}</ul><p>Mail ${mailOf(s)}</p>`,
  );
}
