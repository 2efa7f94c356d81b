/** Link header fields (RFC 8288 3), as far as pages are judged by them. */

/**
 * The links of one field value: each with its reference as it stands and its relation types in small letters.
 * Takes a time that grows with its length alone.
 */
export function readLinkHeader(value: string): { href: string; rel: string[] }[] {
  return value.split(/,(?=\s*<)/).flatMap((link) => {
    const end = link.indexOf('>');
    if (end < 0) return [];
    const rel =
      link
        .slice(end + 1)
        .split(';')
        .map((p) => p.split('='))
        .find(([name]) => name!.trim().toLowerCase() === 'rel')?.[1] ?? '';
    return [
      {
        href: link.slice(link.indexOf('<') + 1, end),
        rel: rel
          .toLowerCase()
          .split(/[\s"]+/)
          .filter(Boolean),
      },
    ];
  });
}
