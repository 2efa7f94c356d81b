/** What pictures are measured against. */

/** Below this share of the edges of one drawn for the size, an icon is called soft. Our own choice, by eye. */
export const SOFT_BELOW = 0.75;
/** What an icon is told from its surroundings with: WCAG 2.2 SC 1.4.11 (non-text contrast). */
export const LEAST_CONTRAST = 3;
/** The safe zone of a maskable icon: a circle of two fifths of its side (W3C Manifest, "safe zone"). */
export const SAFE_RADIUS = 0.4;
/** Tabs in light and in dark, as common browsers paint them (from memory). */
export const TABS = { light: '#ffffff', dark: '#1f2024' } as const;
/** What is written on them. */
export const TAB_INK = { light: '#1b2430', dark: '#e8e6e0' } as const;
/** An icon of 32 px fills so many pixels of a dense screen. */
export const DENSE = 64;
/** So little outside of the safe zone is not missed. */
export const HARDLY_OUTSIDE = 0.002;
/** Letters lower than this many pixels are not read (common practice), and how wide small previews of links are. */
export const LEAST_LETTER = 9;
export const SMALL_SHARE = 300;
