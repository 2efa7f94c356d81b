/**
 * A response header for some addresses alone, set beside the server's other headers: a header within a location or a
 * folder would drop those of the server (nginx, add_header: inherited only where a level has none of its own), and is
 * lost where an application answers by an internal redirect.
 */

/** Where a line belongs that cannot stand in the block of the site. */
export const BEFORE_BLOCK = 'nginx, before the server block';

export interface ConditionalHeader {
  /** What nginx keeps its value in; letters and underscores. */
  variable: string;
  header: string;
  value: string;
  /** A regular expression over the address as it was asked for, from its first slash, query included. */
  pattern: string;
}

export function conditionalHeader(given: ConditionalHeader): { label: string; text: string }[] {
  const { variable, header, value, pattern } = given;
  return [
    {
      label: BEFORE_BLOCK,
      text: `map $request_uri $${variable} {\n  default "";\n  "~${pattern}" "${value}";\n}`,
    },
    { label: 'nginx', text: `add_header ${header} $${variable} always;` },
    {
      label: 'Apache',
      text: `Header always set ${header} "${value}" "expr=%{THE_REQUEST} =~ m#^\\S+ ${pattern.replace(/^\^/, '').replaceAll('#', '\\#').replaceAll('$', '(?= )')}#"`,
    },
  ];
}

/** A path that can stand within quotes. */
export const isQuotable = (path: string): boolean => !/["\\#\r\n]/.test(path);

/** Literally, within a regular expression. */
export const literally = (path: string): string => path.replace(/[.*+?^${}()|[\]]/g, '\\$&');
