import { computed } from 'vue'
import { heapFor } from '@/figures/shape'
import { useDraft } from '@/stores/draft'
import { useMethods } from './useFarm'

/** The way of composting of what lies on the bench; choosing another brings the heap it is built in. */
export function useMethod() {
  const store = useDraft()
  const { methods } = useMethods()
  const of = (id: string | null) => methods.value?.find((one) => one.id === id) ?? null
  const method = computed(() => of(store.draft.method))
  function choose(id: string | null) {
    store.setMethod(id, heapFor(of(id), store.draft.heap))
  }
  return { method, methods, choose }
}
