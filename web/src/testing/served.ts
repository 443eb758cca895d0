/** A server for tests of parts of the page: it answers by method and path, and keeps what was asked of it. */

type Answer = { status?: number; body?: unknown } | 'silence'
type Answerer = Answer | ((asked: Asked) => Answer | Promise<Answer>)

/** Something that was asked of it. */
export interface Asked {
  method: string
  path: string
  body: unknown
}

const routes: [pattern: RegExp, answer: Answerer][] = []
const log: Asked[] = []

/** What was asked since it was set up, of one method and path. */
export function asked(method: string, path: string | RegExp): Asked[] {
  const pattern = typeof path === 'string' ? exactly(path) : path
  return log.filter((one) => one.method === method && pattern.test(one.path))
}

/** Answers `GET /api/lots/7` and the like; what is set up last goes first. */
export function serve(route: string, answer: Answerer) {
  routes.unshift([exactly(route), answer])
}

/** Forgets what was set up and asked. */
export function unserve() {
  routes.length = 0
  log.length = 0
}

/** A refusal, as the server words it. */
export function refusal(
  status: number,
  ...errors: { field?: string; code?: string; reason?: string }[]
): Answer {
  const told = errors.map(({ field = '', code = 'negative', reason = 'cannot be' }) => ({
    field,
    code,
    reason,
    params: {},
  }))
  return { status, body: { status, title: 'Refused', detail: 'refused', errors: told } }
}

function exactly(route: string): RegExp {
  return new RegExp(`^${route.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replaceAll('\\*', '[^/]+')}$`)
}

// Before the client of the API is made, which takes hold of `fetch` once.
globalThis.fetch = async (input, init) => {
  const request = new Request(input as Request, init)
  const { pathname } = new URL(request.url)
  const text = await request.text()
  const one = { method: request.method, path: pathname, body: text ? (JSON.parse(text) as unknown) : null }
  log.push(one)
  const route = `${one.method} ${one.path}`
  const found = routes.find(([pattern]) => pattern.test(route))
  if (!found) throw new Error(`nothing is served at ${route}`)
  const answer = typeof found[1] === 'function' ? await found[1](one) : found[1]
  if (answer === 'silence') throw new TypeError('failed to fetch')
  const { status = 200, body = null } = answer
  const none = status === 204
  return new Response(none ? null : JSON.stringify(body), {
    status,
    headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
  })
}
