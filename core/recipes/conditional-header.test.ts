import { describe, expect, it } from 'vitest';
import { conditionalHeader, isQuotable, literally } from './conditional-header';

describe('a header for some addresses', () => {
  it('is one line beside the others, and the rule before the block', () =>
    expect(
      conditionalHeader({
        variable: 'kept_out',
        header: 'X-Robots-Tag',
        value: 'noindex',
        pattern: '^/a(?:[/?]|$)',
      }),
    ).toEqual([
      {
        label: 'nginx, before the server block',
        text: 'map $request_uri $kept_out {\n  default "";\n  "~^/a(?:[/?]|$)" "noindex";\n}',
      },
      { label: 'nginx', text: 'add_header X-Robots-Tag $kept_out always;' },
      {
        label: 'Apache',
        text: 'Header always set X-Robots-Tag "noindex" "expr=%{THE_REQUEST} =~ m#^\\S+ /a(?:[/?]|(?= ))#"',
      },
    ]));
  it.each(['/a.b(c)+d', '/x$y^z', '/{1,2}[3]|4*5?'])('a path is compared as it is: %s', (path) =>
    expect(new RegExp(`^${literally(path)}$`).test(path)).toBe(true),
  );
  it.each([
    ['/plain', true],
    ['/with "quotes"', false],
    ['/two\nlines', false],
    ['/back\\slash', false],
  ])('%j can stand within quotes: %s', (path, can) => expect(isQuotable(path)).toBe(can));
});
