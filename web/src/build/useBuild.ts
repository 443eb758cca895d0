import { useQuery } from '@tanstack/vue-query'
import { computed, ref, type Ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type BatchPart, type BuildAnew, type BuildPortion, type Heap } from '@/api/client'
import { key } from '@/api/keys'
import { useOutbox } from '@/api/outbox/useOutbox'
import { troubleOf } from '@/api/outbox/send'
import { ON_BUILD_DAY } from '@/api/outbox/undone'
import { useSlip } from '@/kit/useSlip'
import type { Act, Fields } from '@/api/outbox/act'
import { begunHere, doneTo, withWaiting } from './ahead'
import { useBuildWords } from './useBuildWords'

/** A second tap of a wet thumb within this time is not meant, ms. */
const TWICE_MS = 600

/**
 * A heap on build day. What is done stands on the page at once and waits in the
 * browser, in order, until the server has it; without signal any number may wait.
 */
export function useBuild(id: Ref<string>) {
  const slip = useSlip()
  const router = useRouter()
  const outbox = useOutbox()

  const {
    data: told,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: computed(() => key('heap', id.value)),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}', { params: { path: { id: id.value } }, signal })),
    // Somebody else may have laid a layer meanwhile.
    staleTime: 0,
  })

  const isTooSoon = ref(false)
  const waiting = computed(() => outbox.to(id.value))
  const isCutOff = computed(() => outbox.waiting.some((act) => act.of === id.value))

  const known = computed(() => told.value ?? begunHere(waiting.value))
  const heap = computed(() => known.value && withWaiting(known.value, waiting.value))
  const words = useBuildWords(heap)

  // What was begun on two phones at once is one heap at the farm.
  watch(
    () => outbox.moved.get(id.value),
    (to) => to && void router.replace(`/build/${to}`),
    { immediate: true },
  )

  /** What the farm refuses at once is said, and the heap is shown as it stands by now. */
  async function act(kind: Act['kind'], says: string, more: Fields = {}) {
    if (!known.value || isTooSoon.value) return
    isTooSoon.value = true
    window.setTimeout(() => (isTooSoon.value = false), TWICE_MS)
    try {
      await outbox.does<Heap>(doneTo(known.value, waiting.value, kind, says, more))
    } catch (failure) {
      const trouble = troubleOf(failure)
      slip.failed(trouble?.clashes ? words.t('build.moved') : (trouble?.words ?? words.t('app.noServer')))
      await retry()
    }
  }

  function lay(step: number, portions: BuildPortion[], water_l: number, new_items: BatchPart[] = []) {
    const what = words.inWords({ portions, water_l }, '', new_items)
    const says = words.t('build.layerIs', { n: step + 1, what })
    return act('heap-lay', says, { step, portions, water_l, new_items })
  }

  /** What was done last, if the farm does not know of it yet, was never done. */
  function undo() {
    const last = waiting.value.findLast((one) => ON_BUILD_DAY.includes(one.kind))
    return last && outbox.isOnlyHere(last.id)
      ? outbox.letGo(last.id)
      : act('heap-undo', words.t('done.undone'))
  }

  return {
    heap,
    words,
    error,
    retry,
    lay,
    // What is offered was told by the farm of the heap as it stands: it is that, with signal or without.
    anew: (way: BuildAnew['way']) => act('heap-anew', words.t('done.planned'), { way }),
    end: () => act('heap-end', words.t('done.ended')),
    undo,
    /** The thumb was just there, or the server is being asked for the sums. */
    isBusy: computed(() => isTooSoon.value || (waiting.value.length > 0 && !isCutOff.value)),
    /** Acts wait for a server that cannot be reached. */
    isCutOff,
  }
}
