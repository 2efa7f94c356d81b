/** What other subjects and routes may use of pages. */
export type { PagesAnswer } from './page-bytes';
export { packedPages, pageOf, pagesOf } from './pages';
export { recordsOf } from './records';
