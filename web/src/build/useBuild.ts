import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, type Ref, watch } from 'vue'
import { answered, api, type BatchPart, type BuildPortion, type Heap, Refused } from '@/api/client'
import { changed, key } from '@/api/keys'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import { type Act, actOf, bodyOf, keep, kept, withWaiting } from './outbox'

/** How often acts that did not reach the server are tried again, ms. */
const AGAIN_MS = 3000

/** A second tap of a wet thumb within this time is not meant, ms. */
const TWICE_MS = 600

/**
 * A heap on build day. What is done stands on the page at once and waits in the
 * browser, in order, until the server has it; without signal any number may wait.
 */
export function useBuild(id: Ref<string>) {
  const { t } = useSay()
  const slip = useSlip()
  const queries = useQueryClient()
  const heapKey = computed(() => key('heap', id.value))

  const {
    data: told,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: heapKey,
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}', { params: { path: { id: id.value } }, signal })),
    // Somebody else may have laid a layer meanwhile.
    staleTime: 0,
  })

  const waiting = ref<Act[]>(kept(id.value))
  const isSending = ref(false)
  const isCutOff = ref(false)
  const isTooSoon = ref(false)
  let timer = 0

  const heap = computed(() => told.value && withWaiting(told.value, waiting.value))

  // Before it is sent, so that no dying phone loses it.
  watch(waiting, (acts) => keep(id.value, acts), { flush: 'sync' })
  watch(id, (now) => (waiting.value = kept(now)))

  function post(act: Act): Promise<Heap> {
    const path = { params: { path: { id: id.value } } }
    const body = bodyOf(act)
    if (act.laid)
      return answered(api.POST('/api/heaps/{id}/lay', { ...path, body: { ...body, ...act.laid } }))
    if (act.what === 'anew')
      return answered(api.POST('/api/heaps/{id}/anew', { ...path, body: { ...body, way: act.way } }))
    if (act.what === 'end') return answered(api.POST('/api/heaps/{id}/end', { ...path, body }))
    return answered(api.POST('/api/heaps/{id}/undo', { ...path, body }))
  }

  async function send() {
    if (isSending.value) return
    window.clearTimeout(timer)
    isSending.value = true
    try {
      for (let act = waiting.value[0]; act; act = waiting.value[0]) {
        const answer = await post(act)
        queries.setQueryData(heapKey.value, answer)
        waiting.value = waiting.value.slice(1)
        isCutOff.value = false
      }
      void changed(queries, 'heap')
    } catch (failure) {
      if (failure instanceof Refused && failure.problem.status < 500) await refused(failure)
      else {
        isCutOff.value = true
        timer = window.setTimeout(() => void send(), AGAIN_MS)
      }
    } finally {
      isSending.value = false
    }
  }

  /** What is refused, and all that was done after it, is let go: the heap is not where it was thought. */
  async function refused(failure: Refused) {
    waiting.value = []
    isCutOff.value = false
    if (failure.isStale) slip.said({ text: t('build.moved') })
    else slip.failed(failure.message)
    await retry()
  }

  function act(what: Act['what'], { laid, way }: Pick<Act, 'laid' | 'way'> = {}) {
    if (!told.value || isTooSoon.value) return
    // What the solver is asked to do, and what it is asked of, must be known to it.
    if (what === 'anew' && waiting.value.length) return
    waiting.value = [...waiting.value, { ...actOf(told.value, waiting.value, what, laid), way }]
    isTooSoon.value = true
    window.setTimeout(() => (isTooSoon.value = false), TWICE_MS)
    void send()
  }

  const lay = (step: number, portions: BuildPortion[], water_l: number, new_items: BatchPart[] = []) =>
    act('lay', { laid: { step, portions, water_l, new_items } })

  const now = () => void send()
  window.addEventListener('online', now)
  onScopeDispose(() => {
    window.removeEventListener('online', now)
    window.clearTimeout(timer)
  })
  if (waiting.value.length) void send()

  return {
    heap,
    error,
    retry,
    lay,
    anew: (way: Act['way']) => act('anew', { way }),
    end: () => act('end'),
    undo: () => act('undo'),
    /** The thumb was just there, or the server is being asked for the sums. */
    isBusy: computed(() => isTooSoon.value || (waiting.value.length > 0 && !isCutOff.value)),
    /** Acts wait for a server that cannot be reached. */
    isCutOff,
    /** How many. */
    waiting: computed(() => waiting.value.length),
  }
}
