import type { Role } from './people'

/** Who may call a route: anybody, whoever holds a link, or an account from this role up. */
export type Who = 'anyone' | 'link' | Role
/** What a write carries: JSON, a picture, a job file or bundle, or nothing at all. */
export type Body = 'json' | 'photo' | 'file' | 'none'
/** Which budget of calls a route draws on. */
export type Rate = 'sign-in' | 'append' | 'import' | 'upload' | 'other'

export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  path: string
  who: Who
  body: Body
  rate: Rate
}

const route = (
  method: Route['method'],
  path: string,
  who: Who,
  body: Body = 'none',
  rate: Rate = 'other',
): Route => ({ method, path, who, body, rate })

/**
 * Every route of the API. The door lets nothing else through; a test compares this list with the folder of routes,
 * and another calls each of them in every role.
 */
export const ROUTES: readonly Route[] = [
  route('GET', '/api/health', 'anyone'),
  // The session module's own route; it tells a page what the sealed cookie says of its own person.
  route('GET', '/api/_auth/session', 'anyone'),
  route('GET', '/api/session', 'anyone'),
  route('POST', '/api/session', 'anyone', 'json', 'sign-in'),
  route('DELETE', '/api/session', 'apprentice'),
  route('POST', '/api/setup', 'anyone', 'json', 'sign-in'),
  route('PUT', '/api/me/password', 'apprentice', 'json', 'sign-in'),
  route('GET', '/api/me/passkeys', 'apprentice'),
  route('DELETE', '/api/me/passkeys/:passkeyId', 'apprentice'),
  route('POST', '/api/webauthn/register', 'apprentice', 'json', 'sign-in'),
  route('POST', '/api/webauthn/authenticate', 'anyone', 'json', 'sign-in'),
  route('GET', '/api/me/settings', 'apprentice'),
  route('PUT', '/api/me/settings', 'apprentice', 'json'),
  route('GET', '/api/people', 'owner'),
  route('POST', '/api/people', 'owner', 'json'),
  route('PATCH', '/api/people/:userId', 'owner', 'json'),
  route('GET', '/api/audit', 'owner'),
  route('GET', '/api/settings', 'owner'),
  route('PUT', '/api/settings', 'owner', 'json'),
  route('GET', '/api/everything', 'owner', 'none', 'import'),
  route('GET', '/api/trash', 'assessor'),
  route('POST', '/api/trash/:jobId/restore', 'assessor', 'json'),
  route('DELETE', '/api/trash/:jobId', 'owner'),
  route('GET', '/api/jobs', 'apprentice'),
  route('POST', '/api/jobs', 'apprentice', 'json', 'append'),
  route('POST', '/api/jobs/import', 'assessor', 'file', 'import'),
  route('PUT', '/api/jobs/:jobId', 'apprentice', 'json', 'append'),
  route('GET', '/api/jobs/:jobId', 'apprentice'),
  route('DELETE', '/api/jobs/:jobId', 'assessor'),
  route('POST', '/api/jobs/:jobId/archive', 'assessor', 'json'),
  route('POST', '/api/jobs/:jobId/observations', 'apprentice', 'json', 'append'),
  route('GET', '/api/jobs/:jobId/stream', 'apprentice'),
  route('GET', '/api/jobs/:jobId/export', 'apprentice'),
  route('GET', '/api/jobs/:jobId/report', 'apprentice'),
  route('GET', '/api/jobs/:jobId/papers/:paper', 'apprentice'),
  route('GET', '/api/jobs/:jobId/signed', 'apprentice'),
  route('POST', '/api/jobs/:jobId/signed', 'assessor', 'json', 'upload'),
  route('GET', '/api/jobs/:jobId/signed/:name', 'apprentice'),
  route('GET', '/api/jobs/:jobId/bundle', 'apprentice', 'none', 'upload'),
  route('POST', '/api/jobs/:jobId/merge', 'assessor', 'file', 'import'),
  route('GET', '/api/jobs/:jobId/visits.ics', 'apprentice'),
  route('GET', '/api/jobs/:jobId/outbox', 'apprentice'),
  route('POST', '/api/jobs/:jobId/outbox', 'assessor', 'json', 'upload'),
  route('POST', '/api/jobs/:jobId/outbox/labels', 'assessor', 'json', 'upload'),
  route('GET', '/api/jobs/:jobId/outbox/:sentId', 'apprentice'),
  route('GET', '/api/jobs/:jobId/permits', 'apprentice'),
  route('POST', '/api/jobs/:jobId/permits', 'assessor', 'json', 'upload'),
  route('GET', '/api/jobs/:jobId/findings.csv', 'apprentice'),
  route('GET', '/api/jobs/:jobId/schedule.csv', 'apprentice'),
  route('POST', '/api/jobs/:jobId/photos', 'apprentice', 'photo', 'upload'),
  route('GET', '/api/jobs/:jobId/photos/:hash', 'apprentice'),
  route('GET', '/api/jobs/:jobId/people', 'assessor'),
  route('PUT', '/api/jobs/:jobId/people', 'assessor', 'json'),
  route('GET', '/api/jobs/:jobId/links', 'assessor'),
  route('POST', '/api/jobs/:jobId/links', 'assessor', 'json'),
  route('DELETE', '/api/jobs/:jobId/links/:linkId', 'assessor'),
  route('GET', '/api/shared/:token', 'link'),
  route('GET', '/api/shared/:token/signed.pdf', 'link'),
  route('POST', '/api/demo/reset', 'owner', 'json', 'import'),
]

const patterns = ROUTES.map(r => ({
  route: r,
  pattern: new RegExp(`^${r.path.replace(/[.]/g, '\\.').replace(/:\w+/g, '[^/]+')}$`),
}))
/** The routes of a path, whatever the method; a path written out goes before one with a name in it. */
export function routesAt(path: string): Route[] {
  const fitting = patterns.filter(p => p.pattern.test(path)).map(p => p.route)
  const exact = fitting.filter(r => r.path === path)
  return exact.length > 0 ? exact : fitting
}
