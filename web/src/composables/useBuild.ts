import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, type Ref, watch } from 'vue'
import {
  answered,
  api,
  type BatchPart,
  type BuildPortion,
  type Heap,
  type LayRequest,
  Refused,
} from '@/api/client'
import { keepWaiting, keptWaiting, type Waiting, wasKept } from '@/figures/build'
import { useSay } from './useSay'
import { useSlip } from './useSlip'

/** How often an act that did not reach the server is tried again, ms. */
const AGAIN_MS = 3000

/** A second tap of a wet thumb within this time is not meant, ms. */
const TWICE_MS = 600

/**
 * A heap on build day. Each act is kept by the server before the next can be
 * made; one that cannot reach it is kept in the browser and tried until it does.
 */
export function useBuild(id: Ref<number>) {
  const { t } = useSay()
  const slip = useSlip()
  const queries = useQueryClient()
  const key = computed(() => ['heap', id.value])

  const {
    data: heap,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}', { params: { path: { id: id.value } }, signal })),
    // Somebody else may have laid a layer meanwhile.
    staleTime: 0,
  })

  const waiting = ref<Waiting | null>(keptWaiting(id.value))
  const isSending = ref(false)
  const isCutOff = ref(false)
  const isTooSoon = ref(false)
  let timer = 0

  // Before it is sent, so that no dying phone loses it.
  watch(waiting, (act) => keepWaiting(id.value, act), { flush: 'sync' })
  watch(id, (now) => (waiting.value = keptWaiting(now)))

  async function post({ what, body }: Waiting): Promise<Heap> {
    const path = { params: { path: { id: id.value } } }
    if (what === 'lay')
      return answered(api.POST('/api/heaps/{id}/lay', { ...path, body: body as unknown as LayRequest }))
    if (what === 'anew') return answered(api.POST('/api/heaps/{id}/anew', { ...path, body }))
    if (what === 'end') return answered(api.POST('/api/heaps/{id}/end', { ...path, body }))
    return answered(api.POST('/api/heaps/{id}/undo', { ...path, body }))
  }

  async function send() {
    const act = waiting.value
    if (!act || isSending.value) return
    window.clearTimeout(timer)
    isSending.value = true
    try {
      queries.setQueryData(key.value, await post(act))
      waiting.value = null
      isCutOff.value = false
      void queries.invalidateQueries({ queryKey: ['heaps'] })
      isTooSoon.value = true
      window.setTimeout(() => (isTooSoon.value = false), TWICE_MS)
    } catch (failure) {
      if (failure instanceof Refused && failure.problem.status < 500) {
        waiting.value = null
        isCutOff.value = false
        if (!failure.isStale) slip.failed(failure.message)
        else {
          await retry()
          if (heap.value && !wasKept(heap.value, act)) slip.said({ text: t('build.moved') })
        }
      } else {
        isCutOff.value = true
        timer = window.setTimeout(() => void send(), AGAIN_MS)
      }
    } finally {
      isSending.value = false
    }
  }

  function act(what: Waiting['what'], more: Record<string, unknown> = {}) {
    if (!heap.value || waiting.value || isTooSoon.value) return
    waiting.value = { what, body: { version: heap.value.version, ...more } }
    void send()
  }

  const lay = (step: number, portions: BuildPortion[], water_l: number, new_items: BatchPart[] = []) =>
    act('lay', { step, portions, water_l, new_items })

  const now = () => void send()
  window.addEventListener('online', now)
  onScopeDispose(() => {
    window.removeEventListener('online', now)
    window.clearTimeout(timer)
  })
  void send()

  return {
    heap,
    error,
    retry,
    lay,
    anew: () => act('anew'),
    end: () => act('end'),
    undo: () => act('undo'),
    /** An act is under way, or waits for the server. */
    isBusy: computed(() => waiting.value !== null || isTooSoon.value),
    /** It waits for a server that cannot be reached. */
    isCutOff,
  }
}
