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

/** What the head says of this page, with the faults that change it. */
function headOf(data: PageData, all: PageData[], set: PageSetting): string[] {
  const { site: s, on, prefix, environment } = set;
  const isHome = data.path === '/';
  const n = all.indexOf(data);
  const live = environment === 'live';
  const { defaults } = hostFacts(s.host);
  const address = set.origin + prefix + data.path.slice(1);
  const title =
    on('nameless-title') && isHome
      ? `${s.tagline}, all the year round`
      : on('default-title') && n === 2
        ? 'Untitled page'
        : on('same-title') && n === 2
          ? all[1]!.title
          : on('inherited-title') && n === 1
            ? s.name
            : on('long-title') && n === 1
              ? `${data.title}, its beginnings, its people, its plans and its many friends`
              : data.title;
  const description =
    on('no-description') && (n === 1 || n === 2)
      ? ''
      : on('same-description')
        ? all[0]!.description
        : on('default-tagline') && n === 1
          ? defaults.taglines[0]!
          : on('short-description') && n === 1
            ? 'All about us.'
            : on('nameless-description') && isHome
              ? data.description.replace(s.name, 'The house')
              : on('phraseless') && isHome
                ? `${s.name} on the Sallow Firth: a ${s.kind} by the quay. Opening hours, ${s.things.label.toLowerCase()} and how to reach us.`
                : data.description;
  const counter = counterScript(counterOf(s));
  const counted = live ? !(on('uncounted') && n === 2) : on('counted-staging');
  const counters = [
    ...(counted ? [counter, ...(on('counted-twice') && live ? [counter] : [])] : []),
    ...(on('borrowed-counter') && n === 1 ? [counterScript(counterOf(otherClientOf(s)))] : []),
  ];
  const consent = '<script src="https://consent.tidemark.example/ask.js"></script>';
  const picture = `${set.origin}${prefix}${on('picture-gone') ? 'share-old.png' : on('picture-small') ? 'share-small.png' : on('picture-heavy') ? 'share-heavy.png' : 'share.png'}`;
  const own = `https://${preferredHost(s)}${data.path}`;
  const canonical = on('staging-canonical')
    ? `${set.stagingOrigin}${data.path.slice(1)}`
    : on('canonical-home')
      ? `https://${preferredHost(s)}/`
      : on('canonical-chain') && n === 1
        ? `https://${preferredHost(s)}${all[2]!.path}`
        : on('canonical-chain') && n === 2
          ? `https://${preferredHost(s)}${all[3]!.path}`
          : own;
  const ld = {
    '@context': 'https://schema.org',
    '@type': 'Organization',
    name: on('wrong-site-name') ? 'Template House' : s.name,
    url: `https://${preferredHost(s)}/`,
    telephone: on('wrong-phone') ? wrong(s.phone) : s.phone,
    ...(on('no-organisation') ? {} : { logo: `https://${preferredHost(s)}/logo.png` }),
  };
  const soft = on('icon-soft');
  return [
    on('latin') ? '' : '<meta charset="utf-8">',
    on('no-title') && n === 1 ? '' : `<title>${esc(title)}</title>`,
    description ? `<meta name="description" content="${esc(description)}">` : '',
    `<meta name="viewport" content="${on('no-viewport') ? 'width=device-width, initial-scale=1, user-scalable=no' : 'width=device-width, initial-scale=1'}">`,
    live && !(on('no-canonical') && (n === 1 || n === 2)) ? `<link rel="canonical" href="${canonical}">` : '',
    live
      ? `<link rel="alternate" hreflang="${on('wrong-alternate') && n === 1 ? 'en-UK' : 'en-GB'}" href="${own}">`
      : '',
    live && on('noindex-left') ? '<meta name="robots" content="noindex, nofollow">' : '',
    live && on('nofollow-left') && n === 1 ? '<meta name="robots" content="nofollow">' : '',
    live && isHome && !on('token-gone')
      ? `<meta name="sallow-site-verification" content="${tokenOf(s)}">`
      : '',
    live && isHome && on('borrowed-token')
      ? `<meta name="sallow-site-verification" content="${tokenOf(otherClientOf(s))}">`
      : '',
    live && isHome && on('strange-token') ? '<meta name="estuary-verify" content="someone-elses-4711">' : '',
    on('refresh') && n === 1 ? '<meta http-equiv="refresh" content="30">' : '',
    `<meta name="theme-color" content="${on('wrong-colour') ? '#ff00aa' : s.colour}">`,
    `<meta property="og:title" content="${on('share-default') ? 'Home' : esc(data.title)}">`,
    `<meta property="og:description" content="${esc(data.description)}">`,
    '<meta property="og:type" content="website">',
    `<meta property="og:url" content="${on('share-elsewhere') && n === 1 ? `${set.origin}${prefix}` : live && !on('http-stays') ? canonical : address}">`,
    on('no-preview') ? '' : `<meta property="og:image" content="${picture}">`,
    on('no-preview') || on('picture-mute')
      ? ''
      : `<meta property="og:image:alt" content="${esc(s.name)} seen from the water">`,
    `<meta property="og:site_name" content="${esc(on('wrong-site-name') ? 'Template House' : s.name)}">`,
    on('no-card') ? '' : '<meta name="twitter:card" content="summary_large_image">',
    `<link rel="stylesheet" href="${prefix}style.3f9a1c2b.css">`,
    live ? `<link rel="manifest" href="${prefix}site.webmanifest">` : '',
    on('no-icon')
      ? ''
      : [
          icon(prefix, 48, on('icon-lies') ? 32 : 48),
          icon(prefix, 32),
          ...(soft ? [] : [128, 192, 240].map((z) => icon(prefix, z))),
        ].join('\n'),
    on('no-touch-icon')
      ? ''
      : `<link rel="apple-touch-icon" sizes="${s.host === 'Fennel Hosting' ? '240x240' : '180x180'}" href="${prefix}touch.png">`,
    on('mixed') && n <= 1 ? '<script src="http://widgets.tidemark.example/clock.js"></script>' : '',
    on('script-twice')
      ? '<script src="https://fonts.tidemark.example/f.js"></script><script src="https://fonts.tidemark.example/f.js"></script>'
      : '',
    on('strange-script') && n === 1 ? '<script src="https://cdn.gull-ads.example/a.js"></script>' : '',
    ...(on('late-consent') ? [...counters, consent] : [consent, ...counters]),
    on('script-early') && n === 1 ? `<script src="${prefix}app.js" defer></script>` : '',
    `<script type="application/ld+json">${JSON.stringify(ld)}</script>`,
    on('broken-ld') && n === 1
      ? '<script type="application/ld+json">{"@context":"https://schema.org","@type":"Event",}</script>'
      : '',
  ];
}

const wrong = (phone: string): string => phone.replace(/\d$/, (d) => String((Number(d) + 1) % 10));

/** The form of the contact page. */
function formOf(s: PracticeSite, set: PageSetting, phone: string): string {
  const { on, prefix } = set;
  const action = on('form-http')
    ? `${set.origin.replace('https:', 'http:')}${prefix}contact/send`
    : `${prefix}contact/send`;
  return `<p>Mail: <a href="mailto:${on('foreign-mail') ? 'info@template-maker.example' : mailOf(s, on('free-mail'))}">write to us</a>, phone: <a href="tel:${phone.replace(/\s/g, '')}">${phone}</a></p>
<form id="contact" action="${action}" method="post">${on('default-sender') ? `<input type="hidden" name="from" value="${hostFacts(s.host).defaults.formSenders[0]}">` : ''}<label>Name <input name="name"></label><label>Mail <input name="mail" type="email"></label><label>Message <textarea name="message"></textarea></label><button>Send</button></form>`;
}

/** One page as HTML, with the faults that are switched on. */
export function renderPage(data: PageData, all: PageData[], set: PageSetting): string {
  const { site: s, on, prefix, environment } = set;
  const isHome = data.path === '/';
  const n = all.indexOf(data);
  const live = environment === 'live';
  const phone = on('wrong-phone') ? wrong(s.phone) : s.phone;
  const host = hostFacts(s.host);
  const extra = extraPages(s, on);
  const shown = [...all.filter((p) => !p.path.slice(1, -1).includes('/')), ...(isHome ? extra : [])];
  const nav = shown
    .filter((p) => !(on('unlinked') && isHome && p.path === '/visit/'))
    .map(
      (p) => `<li><a href="${prefix}${p.path.slice(1)}">${p.path === '/' ? 'Home' : esc(p.heading)}</a></li>`,
    )
    .join('');
  const below =
    data.path === `/${s.things.path}/`
      ? `<ul>${all
          .filter((p) => p.path.startsWith(data.path) && p !== data)
          .map((p) => `<li><a href="${prefix}${p.path.slice(1)}">${esc(p.heading)}</a></li>`)
          .join('')}</ul>`
      : '';
  const head = headOf(data, all, set).filter(Boolean).join('\n');
  if (on('app-shell') && !isHome)
    return `<!doctype html>\n<html lang="en-GB">\n<head>\n${head}\n</head>\n<body><div id="app"></div><script src="${prefix}app.js"></script></body>\n</html>`;
  const paragraphs =
    on('text-changed') && live && n === 1
      ? [...data.paragraphs, 'We are closed until further notice.']
      : data.paragraphs;
  return `<!doctype html>
<html lang="${on('wrong-language') ? 'en-UK' : 'en-GB'}">
<head>
${head}
</head>
<body>
<header><p><a href="${prefix}">${esc(s.name)}</a></p><nav><ul>${nav}</ul></nav></header>
<main>
<h1>${esc(data.heading)}</h1>
${on('two-headings') && n === 1 ? '<h1>Welcome</h1>' : ''}${on('skipped-heading') && n === 1 ? '<h4>How it began</h4>' : ''}
<img src="${prefix}pictures/view.png" width="600" height="300"${on('no-alt') ? '' : ` alt="A view of the firth near ${esc(s.name)}"`}>${on('heavy-page') && live && isHome ? `<img src="${prefix}pictures/heavy.png" alt="The firth in every detail">` : ''}
${paragraphs.map((p) => `<p>${esc(on('wrong-phone') ? p.replace(s.phone, phone) : p)}</p>`).join('\n')}
${data.path === '/news/' ? `<p class="byline author">${on('default-author') ? host.defaults.authors[0] : 'The people at the desk'}</p>` : ''}
${on('filler') && n === 1 ? '<p>Lorem ipsum dolor sit amet, consectetur adipiscing elit.</p>' : ''}
${on('private-mail') && n === 1 ? '<p>Keys: <a href="mailto:owner.private@firth-mail.example">owner</a></p>' : ''}
${on('staging-links') && live && n === 2 ? `<p><a href="${set.stagingOrigin}">The old timetable</a></p>` : ''}
${on('http-links') && n === 2 ? `<p><a href="http://${preferredHost(s)}/about/">About us</a></p>` : ''}
${on('link-detour') && live && n === 2 ? '<p><a href="/old-gate/">The old gate</a></p>' : ''}
${on('outside-dead') && n === 1 ? '<p><a href="https://lapsed-friends.example/">Friends of ours</a></p>' : ''}
${on('camera-picture') && n === 1 ? `<img src="${prefix}pictures/camera.png" alt="The quay at noon">` : ''}
${on('dead-link') && n === 1 ? `<p><a href="${prefix}summer-party/">The summer party</a></p>` : ''}
${on('nameless-button') && n === 1 ? '<button><svg width="10" height="10"></svg></button>' : ''}
${on('comments-open') && data.path === '/news/' ? `<form id="commentform" action="${prefix}news/comment" method="post"><label>Comment <textarea name="comment"></textarea></label><button>Post comment</button></form>` : ''}
${below}
${data.form ? formOf(s, set, phone) : ''}
</main>
<footer><p>© ${on('old-year') ? set.year - 4 : set.year} ${esc(s.name)}. <a href="${prefix}contact/">Contact</a> <a href="${on('strange-profile') ? STRANGER : profileOf(s)}">Shoal</a>${on('host-badge') ? ` <a href="https://www.${host.suffix}/">${host.badge[0]}</a>` : ''}</p></footer>
${on('script-early') && n === 1 ? '' : `<script src="${prefix}app.js" defer></script>`}
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
export function formerPage(s: PracticeSite, path: string): string {
  const pages = ['/', '/history.html', '/prices.html', '/contact.html', '/links.html', '/guestbook.html'];
  return simple(
    `${s.name} (old site)`,
    `<h1>${esc(s.name)}</h1><p>The old pages of ${esc(s.name)}, page ${esc(path)}. They have served since the long summer and will soon make room.</p><ul>${pages.map((p) => `<li><a href="${p}">${p}</a></li>`).join('')}</ul><p>Mail ${mailOf(s)}</p>`,
  );
}
