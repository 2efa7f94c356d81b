/** Web app manifests (W3C Web Application Manifest): the members that an audit asks about. */
import { resolveAddress } from './address';

export interface ManifestIcon {
  src: string;
  sizes: string[];
  type?: string;
  purpose?: string;
}
export interface ManifestFacts {
  name?: string;
  shortName?: string;
  startUrl?: string;
  scope?: string;
  themeColour?: string;
  icons: ManifestIcon[];
  error?: string;
}

const text = (v: unknown): string | undefined => (typeof v === 'string' ? v.slice(0, 500) : undefined);

/**
 * Reads a manifest. Addresses are resolved against the manifest's own (section "processing the icons
 * member").
 * @returns facts with `error` when it is no JSON object
 */
export function readManifest(source: string, url: string): ManifestFacts {
  let data: unknown;
  try {
    data = JSON.parse(source.replace(/^\ufeff/, ''));
  } catch (error) {
    return { icons: [], error: (error as Error).message.slice(0, 200) };
  }
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    return { icons: [], error: 'no JSON object' };
  const o = data as Record<string, unknown>;
  const address = (v: unknown): string | undefined => {
    const t = text(v);
    return t === undefined ? undefined : resolveAddress(t, url);
  };
  const icons = (Array.isArray(o.icons) ? o.icons : []).slice(0, 50).flatMap((icon): ManifestIcon[] => {
    const i = (typeof icon === 'object' && icon !== null ? icon : {}) as Record<string, unknown>;
    const src = address(i.src);
    return src === undefined
      ? []
      : [
          {
            src,
            sizes: (text(i.sizes) ?? '').toLowerCase().split(/\s+/).filter(Boolean),
            type: text(i.type),
            purpose: text(i.purpose),
          },
        ];
  });
  return {
    name: text(o.name),
    shortName: text(o.short_name),
    startUrl: address(o.start_url),
    scope: address(o.scope),
    themeColour: text(o.theme_color),
    icons,
  };
}
