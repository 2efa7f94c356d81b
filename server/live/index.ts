/** What other subjects and routes may use of live. */
export { listen } from './live';
