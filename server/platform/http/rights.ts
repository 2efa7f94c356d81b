/** Who may ask for what: each route by its method and path, in this one place. */

/** From the least to the most: each may do what those before may. */
export const RIGHTS = ['anyone', 'signed in', 'owner'] as const;
export type Right = (typeof RIGHTS)[number];

export const ROUTES: Record<string, Right> = {
  'POST /api/acceptances/:id/second': 'signed in',
  'POST /api/adopt': 'signed in',
  'POST /api/audits': 'signed in',
  'DELETE /api/audits/:id': 'signed in',
  'GET /api/audits/:id/evidence': 'signed in',
  'POST /api/audits/:id/stop': 'signed in',
  'GET /api/audits/running': 'signed in',
  'GET /api/catalogue': 'signed in',
  'GET /api/checklists': 'signed in',
  'POST /api/checklists': 'signed in',
  'DELETE /api/checklists/:id': 'signed in',
  'GET /api/checklists/:id': 'signed in',
  'PUT /api/checklists/:id': 'signed in',
  'PUT /api/checklists/:id/assignments': 'signed in',
  'GET /api/checklists/:id/versions': 'signed in',
  'GET /api/checklists/:id/versions/:version': 'signed in',
  'POST /api/checklists/preview': 'signed in',
  'GET /api/checklists/preview/:job': 'signed in',
  'POST /api/checklists/reevaluate': 'signed in',
  'GET /api/clients': 'signed in',
  'DELETE /api/clients/:id': 'signed in',
  'PATCH /api/clients/:id': 'signed in',
  'GET /api/clients/:id/contents': 'signed in',
  'POST /api/clients/:id/merge': 'signed in',
  'DELETE /api/environments/:id': 'signed in',
  'PUT /api/environments/:id': 'signed in',
  'POST /api/environments/:id/attest': 'signed in',
  'GET /api/environments/:id/audits': 'signed in',
  'GET /api/environments/:id/blanks': 'signed in',
  'POST /api/environments/:id/files': 'signed in',
  'GET /api/environments/:id/findings/:check': 'signed in',
  'GET /api/environments/:id/findings/:check/places': 'signed in',
  'GET /api/environments/:id/ledger': 'signed in',
  'GET /api/environments/:id/ledger/folded': 'signed in',
  'GET /api/environments/:id/ledger/manual': 'signed in',
  'GET /api/environments/:id/ledger/sum': 'signed in',
  'GET /api/files/:id': 'signed in',
  'GET /api/fixes': 'signed in',
  'PATCH /api/fixes': 'signed in',
  'GET /api/fixes/:id': 'signed in',
  'POST /api/fixes/look': 'signed in',
  'PATCH /api/fixes/:id': 'signed in',
  'POST /api/fixes/:id/accept': 'signed in',
  'POST /api/fixes/:id/withdraw': 'signed in',
  'GET /api/fixes/faults': 'signed in',
  'GET /api/fixes/ids': 'signed in',
  'GET /api/fixes/recipe': 'signed in',
  'GET /api/health': 'anyone',
  'GET /api/host-profiles': 'signed in',
  'POST /api/host-profiles': 'signed in',
  'DELETE /api/host-profiles/:id': 'signed in',
  'GET /api/host-profiles/:id': 'signed in',
  'PUT /api/host-profiles/:id': 'signed in',
  'GET /api/host-profiles/:id/versions': 'signed in',
  'POST /api/host-profiles/learn': 'signed in',
  'GET /api/jobs/:job': 'signed in',
  'POST /api/jobs/:job/stop': 'signed in',
  'GET /api/live': 'signed in',
  'GET /api/me': 'signed in',
  'POST /api/me/password': 'signed in',
  'GET /api/me/sessions': 'signed in',
  'DELETE /api/me/sessions/:key': 'signed in',
  'POST /api/me/sessions/end-all': 'signed in',
  'GET /api/messages': 'signed in',
  'POST /api/messages': 'signed in',
  'POST /api/password-link': 'anyone',
  'GET /api/people': 'signed in',
  'POST /api/people': 'owner',
  'DELETE /api/people/:id': 'owner',
  'PATCH /api/people/:id': 'owner',
  'POST /api/people/:id/link': 'owner',
  'GET /api/people/team': 'signed in',
  'GET /api/practice-net': 'signed in',
  'POST /api/practice-net': 'signed in',
  'POST /api/read-site': 'signed in',
  'GET /api/roster': 'signed in',
  'GET /api/roster/environments': 'signed in',
  'POST /api/sign-in': 'anyone',
  'POST /api/sign-out': 'signed in',
  'POST /api/sites': 'signed in',
  'DELETE /api/sites/:id': 'signed in',
  'GET /api/sites/:id': 'signed in',
  'PATCH /api/sites/:id': 'signed in',
  'PUT /api/sites/:id/brief': 'signed in',
  'GET /api/sites/:id/briefs': 'signed in',
  'POST /api/sites/:id/bring-back': 'signed in',
  'GET /api/sites/:id/contents': 'signed in',
  'POST /api/sites/:id/environments': 'signed in',
  'GET /api/sites/alike': 'signed in',
  'GET /api/sites/export': 'signed in',
  'GET /api/sites/find': 'signed in',
  'POST /api/sites/import': 'signed in',
  'POST /api/sites/look': 'signed in',
  'GET /api/views': 'signed in',
  'POST /api/views': 'signed in',
  'DELETE /api/views/:id': 'signed in',
};

const PATTERNS = Object.entries(ROUTES).map(([route, right]) => {
  const [method = '', path = ''] = route.split(' ');
  const fixed = path.split('/').filter((part) => !part.startsWith(':')).length;
  return { method, right, fixed, matches: new RegExp(`^${path.replaceAll(/:\w+/g, '[^/]+')}/?$`) };
});
// where two fit, the one that says more is meant, as the router has it
PATTERNS.sort((a, b) => b.fixed - a.fixed);

/** What a request needs; whoever is signed in may hear that a route is not there. */
export function rightFor(method: string, path: string): Right {
  const asked = method === 'HEAD' ? 'GET' : method;
  return PATTERNS.find((p) => p.method === asked && p.matches.test(path))?.right ?? 'signed in';
}

export const isEnough = (has: Right, needs: Right): boolean => RIGHTS.indexOf(has) >= RIGHTS.indexOf(needs);
