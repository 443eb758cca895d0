import { computed } from 'vue'
import { heapFor } from '@/figures/shape'
import { useDraft } from '@/stores/draft'
import { useMethods } from './useFarm'

/** The way of composting of what lies on the bench; choosing another brings the heap it is built in. */
export function useMethod() {
  const store = useDraft()
  const { methods, find, methodName } = useMethods()
  const method = computed(() => find(store.draft.method))
  function choose(id: string | null) {
    store.setMethod(id, heapFor(find(id), store.draft.heap))
  }
  return { method, methods, methodName, choose }
}
