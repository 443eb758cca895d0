import { computed, type Ref } from 'vue'
import type { LayerPlan } from '@/api/client'
import { heapFor } from './shape'
import { useDraft } from '@/mix/draft'
import { useMethods } from '@/farm/useFarm'

/** The method of what lies on the bench; choosing another brings the heap it is built in. */
export function useMethod(plan?: Ref<LayerPlan | null>) {
  const store = useDraft()
  const { methods, find, methodName } = useMethods()
  const method = computed(() => find(store.draft.method))
  function choose(id: string | null) {
    store.setMethod(id, heapFor(find(id), store.draft.heap, plan?.value?.fit.shapes))
  }
  return { method, methods, methodName, choose }
}
