/** In which sizes icons are made. */
import type { HostProfile } from '#core/facts/host-profile';

/** The sides of the icons that devices ask a manifest for, in pixels (common practice). */
export const MANIFEST_SIZES: readonly number[] = [192, 512];
/** What an icon file (ICO) holds. */
export const ICO_SIZES: readonly number[] = [16, 32, 48];
/** Of a touch icon, where the host asks for none (common practice). */
export const TOUCH_SIZE = 180;
/** Common practice. */
const USUAL_SIZES: readonly number[] = [...ICO_SIZES, 64, TOUCH_SIZE, ...MANIFEST_SIZES, 256];

type IconRules = HostProfile['icons'];

/** What the host asks for and what is usual, the smallest first. */
export function iconSizes(rules: IconRules): number[] {
  const asked = [...(rules?.required ?? []), ...(rules?.recommended ?? []), rules?.touch ?? TOUCH_SIZE];
  return [...new Set([...USUAL_SIZES, ...asked])].sort((a, b) => a - b);
}

/** Those that a page names in its head: what the host asks for, and one for dense screens. */
export function namedSizes(rules: IconRules): number[] {
  const asked = [...(rules?.required ?? []), ...(rules?.recommended ?? [])];
  return [...new Set([...asked, MANIFEST_SIZES[0]!])].sort((a, b) => a - b);
}

/** As what the host’s profile names a size; nothing where it does not. */
export function askedAs(size: number, rules: IconRules): 'required' | 'recommended' | 'touch' | undefined {
  if (rules?.required?.includes(size)) return 'required';
  if (rules?.recommended?.includes(size)) return 'recommended';
  return rules?.touch === size ? 'touch' : undefined;
}
