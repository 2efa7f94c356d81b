/**
 * Valid language tags: well-formed, every subtag in the registry (RFC 5646 2.2.9; the registry comes with the
 * language-tags package).
 */
import tags from 'language-tags';
import { memoize } from '#core/remembering';

/**
 * What language-tags reports and RFC 5646 does not forbid: deprecated tags and subtags, a script that need
 * not be said, and more variants than one.
 */
const HARMLESS = new Set([1, 8, 10, 11]);
/** The syntax (RFC 5646 2.1); old registrations that do not follow it stand by themselves. */
const SYNTAX =
  /^(?:[a-z]{2,3}(?:-[a-z]{3}){0,3}|[a-z]{4,8})(?:-[a-z]{4})?(?:-(?:[a-z]{2}|\d{3}))?(?:-(?:[a-z0-9]{5,8}|\d[a-z0-9]{3}))*(?:-[0-9a-wyz](?:-[a-z0-9]{2,8})+)*(?:-x(?:-[a-z0-9]{1,8})+)?$/;
const IRREGULAR =
  /^(?:en-gb-oed|i-(?:ami|bnn|default|enochian|hak|klingon|lux|mingo|navajo|pwn|tao|tay|tsu)|sgn-(?:be-fr|be-nl|ch-de))$/;
const VARIANT = /^(?:[a-z0-9]{5,8}|\d[a-z0-9]{3})$/;

/**
 * Subtags for private use are ranges of the registry (RFC 5646 2.2.1, 2.2.3, 2.2.4), which the package does
 * not know: any registered one stands in for them.
 */
function withoutPrivate(subtags: readonly string[]): string[] {
  return subtags.map((s, i) =>
    i === 0 && /^q[a-t][a-z]$/.test(s)
      ? 'und'
      : i > 0 && /^qa(?:a[a-z]|b[a-x])$/.test(s)
        ? 'zyyy'
        : i > 0 && /^(?:q[m-z]|x[a-z]|aa|zz)$/.test(s)
          ? 'gb'
          : s,
  );
}

function valid(tag: string): boolean {
  const small = tag.toLowerCase();
  if (IRREGULAR.test(small)) return true;
  const all = small.split('-');
  if (all[0] === 'x') return all.length > 1 && all.slice(1).every((s) => /^[a-z0-9]{1,8}$/.test(s));
  if (!SYNTAX.test(small)) return false;
  const until = all.indexOf('x');
  const head = until < 0 ? all : all.slice(0, until);
  const singletons = head.filter((s, i) => i > 0 && s.length === 1);
  const first = head.findIndex((s, i) => i > 0 && s.length === 1);
  const variants = (first < 0 ? head : head.slice(0, first)).slice(1).filter((s) => VARIANT.test(s));
  // a variant or a singleton stands once (RFC 5646 2.2.5, 2.2.6)
  if (new Set(singletons).size < singletons.length || new Set(variants).size < variants.length) return false;
  return tags(
    [
      ...withoutPrivate(first < 0 ? head : head.slice(0, first)),
      ...(first < 0 ? [] : head.slice(first)),
      ...(until < 0 ? [] : all.slice(until)),
    ].join('-'),
  )
    .errors()
    .every((e) => HARMLESS.has(e.code));
}

/** Every page of a site says the same tag. */
export const validLanguageTag = memoize((tag: string) => tag !== '' && tag.length < 100 && valid(tag), 1000);
