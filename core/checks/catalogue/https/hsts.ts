import { headerValues } from '#core/facts/evidence';
import { restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { headerRecipe } from '#core/recipes/web-server';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.hsts', {
  'no-strict-transport-security': 'no Strict-Transport-Security',
  'no-usable-max-age': 'no usable max-age',
  'max-age': 'max-age {age}',
});

/**
 * max-age of a Strict-Transport-Security value (RFC 6797 6.1.1): directives in any order, quoted or not, the
 * name without case; null when missing or twice.
 */
export function hstsMaxAge(value: string): number | null {
  const ages = value
    .split(';')
    .map((d) => /^\s*max-age\s*=\s*"?(\d{1,12})"?\s*$/i.exec(d)?.[1])
    .filter((a): a is string => a !== undefined);
  return ages.length === 1 ? Number(ages[0]) : null;
}

export const hsts = defineCheck({
  id: 'https.hsts',
  title: 'HSTS is set on every host',
  fault: 'HSTS is missing or too short on a host',
  severity: 'major',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'Without it, the first request of each visit can be caught on the way and kept on http.',
  source: 'RFC 6797 6.1; the value is common practice',
  parameters: {
    seconds: { default: 15_552_000, min: 0, max: 63_072_000, unit: 'seconds', meaning: 'least max-age' },
  },
  judge(context) {
    const { parameters } = context;
    return overHosts(
      context,
      (h) => {
        const answer = h.https.hops[0];
        if (answer?.status === undefined)
          return unsure(h.host, restsOn(answer?.error ?? h.tls.error, context.view));
        // RFC 6797 8.1: only the first header field counts
        const value = headerValues(answer, 'strict-transport-security')[0];
        if (value === undefined) return failed(h.host, { found: msg('no-strict-transport-security') });
        const age = hstsMaxAge(value);
        const raw = `Strict-Transport-Security: ${value}`;
        if (age === null) return failed(h.host, { found: msg('no-usable-max-age'), raw });
        return (age >= parameters.seconds ? passed : failed)(h.host, {
          found: msg('max-age', { age }),
          raw,
        });
      },
      { expected: `max-age of at least ${parameters.seconds}` },
    );
  },
  recipe: ({ parameters }, finding) => ({
    steps: `Send this header with every answer over https, redirects too, once http leads to https on every host: it belongs into the block of each host, here ${failedPlaces(
      finding,
      10,
    )
      .map((p) => p.place)
      .join(
        ' and ',
      )}. Browsers keep to it for as long as it says: send the first step for a day, look that every page still opens, then send the other in its place.`,
    paste: [
      { label: 'First step, for a day', text: 'Strict-Transport-Security: max-age=300' },
      ...headerRecipe('Strict-Transport-Security', `max-age=${Math.max(31_536_000, parameters.seconds)}`),
    ],
  }),
});
