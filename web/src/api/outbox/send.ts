import { answered, api, Refused } from '@/api/client'
import type { Act, Fields, Trouble } from './act'
import { alike, merge } from './merge'
import { rowOf } from './kinds'

type Call = (path: string, init: object) => Promise<{ data?: unknown; error?: unknown; response: Response }>

/** Longer than this nobody waits for a farm that hardly answers; what it took after all it knows by its id [ms]. */
const PATIENCE_MS = 12_000

/** The farm did not take it, and why: said to whoever has to decide. */
export class Clash extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble.words)
    this.name = 'Clash'
  }
}

function call(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, init: object) {
  return answered<unknown>(
    (api as unknown as Record<string, Call>)[method]!(path, {
      ...init,
      signal: AbortSignal.timeout(PATIENCE_MS),
    }),
  )
}

/** Sends an act; what waited meets what others did meanwhile. */
export async function send(act: Act, hasWaited: boolean): Promise<unknown> {
  const { call: how, now } = rowOf(act.kind)
  const [method, path] = how
  const headers = hasWaited ? { 'x-done-at': act.at } : {}
  const init = { params: { path: act.path, query: act.query }, headers }
  const body = now && hasWaited ? await met(act, now) : act.body
  // The farm has it already: only its answer was lost.
  if (body === null) return null
  try {
    return await call(method, path, body ? { ...init, body } : init)
  } catch (failure) {
    // What is gone already need not be removed again.
    const isGone = failure instanceof Refused && failure.problem.status === 404
    if (isGone && method === 'DELETE' && hasWaited) return null
    throw failure
  }
}

/** A change as it is to be made by now; none if the record is so already. */
async function met(act: Act, { list, field }: { list: string; field: string }): Promise<Fields | null> {
  const records = (await call('GET', list, { params: { path: act.path } })) as Fields[]
  const now = records.find(({ id }) => id === act.path.id)
  const mine = act.body?.[field] as Fields
  // What is not there is refused in the farm's own words.
  if (!now) return act.body!
  const theirs = Object.fromEntries(Object.keys(mine).map((name) => [name, now[name]]))
  if (alike(theirs, mine)) return null
  const { fields, clash } = merge(act.base ?? mine, mine, theirs)
  if (clash.length) throw new Clash({ clashes: true, words: '', now: theirs, fields: clash })
  return { version: now.version, [field]: fields }
}

/** What a refusal means for an act that waited; none if it only was no time for it. */
export function troubleOf(failure: unknown): Trouble | null {
  if (failure instanceof Clash) return failure.trouble
  if (!(failure instanceof Refused)) return null
  const { status } = failure.problem
  // The farm is busy, has no disk, or wants to know first who that is.
  if (status >= 500 || status === 429 || status === 408 || status === 401) return null
  return { clashes: failure.isStale, words: failure.message }
}
