/** Pages that scripts build in the browser. */
import type { PageEvidence } from '#core/facts/evidence';
import type { PageFacts } from './html';

/** Whether a page is an empty application shell: a body without text or links, and scripts that are to fill it. */
export const isShell = ({ textLength, anchors, scripts }: PageFacts): boolean =>
  textLength < 40 && anchors.length === 0 && scripts.some((s) => s.src);

/** The facts to read a page by: those of what a browser built where the page as served is an empty shell. */
export const shownFacts = ({
  facts,
  rendered,
}: Pick<PageEvidence, 'facts' | 'rendered'>): PageFacts | undefined => rendered?.facts ?? facts;
