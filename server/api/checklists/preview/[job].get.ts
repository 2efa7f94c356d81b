import { previewOf } from '../../../audits/reevaluating';

/** The preview while it runs, with what it has found so far. */
export default defineEventHandler((event) => previewOf(getRouterParam(event, 'job') ?? ''));
