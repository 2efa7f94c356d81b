import { listFixes } from '../../fixes/fixes';

export default defineEventHandler((event) => {
  const { site, closed } = getQuery(event);
  const siteId = Number(site);
  return listFixes({ ...(Number.isInteger(siteId) && siteId > 0 ? { siteId } : {}), closed: closed === '1' });
});
