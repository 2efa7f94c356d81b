/** The files of a site's pictures: what they are called, and what names them in the head of its pages. */
import type { HostProfile } from '#core/facts/host-profile';
import { escapeText } from '#core/recipes/markup';
import { MANIFEST_SIZES, namedSizes, TOUCH_SIZE, ICO_SIZES } from './icon-sizes';
import { SHARE_SIZE } from './crop';

export type ShareFormat = 'jpeg' | 'png';
export const SHARE_FORMATS: readonly ShareFormat[] = ['jpeg', 'png'];

/** Where the files will lie, and what is said of them. */
export interface KitPlan {
  /** The environment’s address. */
  base: string;
  /** Below that address: "/" or "/pictures/". */
  folder: string;
  /** The site’s name. */
  name: string;
  icons?: HostProfile['icons'];
  /** "#rrggbb" */
  themeColour?: string;
  /** The share picture’s file name and what the picture shows. */
  share?: { file: string; alt: string };
  /** The drawing itself goes with the icons. */
  vector?: boolean;
  hasIcon?: boolean;
}

/** @returns why a folder is none, as a sentence; undefined for a good one */
export function folderFault(folder: string): string | undefined {
  if (!/^\/(?:[A-Za-z0-9._~-]+\/)*$/.test(folder))
    return 'A folder begins and ends with a slash, and has plain letters, figures, “-”, “.”, “_” and “~” between: /pictures/.';
  return folder.split('/').some((part) => /^\.+$/.test(part))
    ? 'A folder’s name is no dots alone.'
    : undefined;
}

/** A new picture has a new name, so that no network shows its copy of the old one. */
export const shareName = (hash: string, format: ShareFormat): string =>
  `share-${hash.slice(0, 8)}.${format === 'jpeg' ? 'jpg' : 'png'}`;
export const iconName = (size: number): string => `icon-${size}.png`;
export const KIT_NAMES = {
  ico: 'favicon.ico',
  vector: 'icon.svg',
  touch: 'apple-touch-icon.png',
  maskable: 'icon-maskable-512.png',
  manifest: 'site.webmanifest',
  tags: 'tags.html',
} as const;

/** Where a file of the kit will be found. */
export function kitUrl({ base, folder }: Pick<KitPlan, 'base' | 'folder'>, file: string): URL {
  const root = base.endsWith('/') ? base : `${base}/`;
  return new URL(`.${folder}${file}`, root);
}

/** The manifest, as its file (W3C Web Application Manifest). */
export function kitManifest(plan: KitPlan): string {
  const start = kitUrl({ ...plan, folder: '/' }, '').pathname;
  const pathOf = (file: string): string => kitUrl(plan, file).pathname;
  return `${JSON.stringify(
    {
      name: plan.name,
      start_url: start,
      scope: start,
      ...(plan.themeColour ? { theme_color: plan.themeColour } : {}),
      icons: [
        ...MANIFEST_SIZES.map((s) => ({
          src: pathOf(iconName(s)),
          sizes: `${s}x${s}`,
          type: 'image/png',
        })),
        { src: pathOf(KIT_NAMES.maskable), sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      ],
    },
    null,
    2,
  )}\n`;
}

/** The tags for the head of every page, a line each. */
export function kitTags(plan: KitPlan): string {
  const pathOf = (file: string): string => kitUrl(plan, file).pathname;
  const touch = plan.icons?.touch ?? TOUCH_SIZE;
  const icons = [
    `<link rel="icon" href="${pathOf(KIT_NAMES.ico)}" sizes="${ICO_SIZES.map((s) => `${s}x${s}`).join(' ')}">`,
    ...(plan.vector
      ? [`<link rel="icon" href="${pathOf(KIT_NAMES.vector)}" type="image/svg+xml" sizes="any">`]
      : []),
    ...namedSizes(plan.icons).map(
      (s) => `<link rel="icon" type="image/png" sizes="${s}x${s}" href="${pathOf(iconName(s))}">`,
    ),
    `<link rel="apple-touch-icon" sizes="${touch}x${touch}" href="${pathOf(KIT_NAMES.touch)}">`,
    `<link rel="manifest" href="${pathOf(KIT_NAMES.manifest)}">`,
    ...(plan.themeColour ? [`<meta name="theme-color" content="${plan.themeColour}">`] : []),
  ];
  const share = plan.share
    ? [
        `<meta property="og:image" content="${kitUrl(plan, plan.share.file).href}">`,
        `<meta property="og:image:width" content="${SHARE_SIZE.width}">`,
        `<meta property="og:image:height" content="${SHARE_SIZE.height}">`,
        `<meta property="og:image:alt" content="${escapeText(plan.share.alt)}">`,
        '<meta name="twitter:card" content="summary_large_image">',
      ]
    : [];
  return [...(plan.hasIcon ? icons : []), ...share, ''].join('\n');
}
