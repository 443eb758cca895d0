import { api } from '@/api/client'
import { remembered } from './person'

const NAME = 'zymarch.has-heap'

/** Notes whether a heap stands on this farm: what is to be done there opens first from then on. */
export function noteHeaps(has: boolean) {
  try {
    localStorage.setItem(NAME, has ? 'yes' : 'no')
  } catch {
    // Where nothing may be kept it is asked each time.
  }
}

function noted(): string | null {
  try {
    return localStorage.getItem(NAME)
  } catch {
    return null
  }
}

/** The page that opens first: today, once there is a heap; before that the bench. */
export async function firstPath(): Promise<string> {
  const before = noted()
  if (before) return before === 'yes' ? '/today' : '/bench'
  try {
    const { data: sites } = await api.GET('/api/sites')
    const site = sites?.find(({ id }) => id === remembered()) ?? sites?.at(-1)
    if (!site) return '/bench'
    const { data: heaps } = await api.GET('/api/sites/{site}/heaps', { params: { path: { site: site.id } } })
    const has = (heaps ?? []).some(({ laid }) => laid > 0)
    noteHeaps(has)
    return has ? '/today' : '/bench'
  } catch {
    return '/bench'
  }
}
