/** How many pages an audit reads. */

/** More pages than this no audit reads. */
export const MOST_PAGES = 5000;
/** Where neither the site nor whoever starts the audit says another number. */
export const USUAL_PAGES = 50;
