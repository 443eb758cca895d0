import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, type Ref, watch } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { asked, moved, type View, within, zoomed } from './trace'

/** Columns that are asked for: as many as a wide page has, and the same on every device, so that it is kept. */
const COLUMNS = 400

/** The heat trace of a heap, and the part of it that is in sight. */
export function useTrace(id: Ref<string>) {
  const path = computed(() => ({ id: id.value }))
  const {
    data: all,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('trace', id),
    queryFn: ({ signal }) =>
      answered(
        api.GET('/api/heaps/{id}/trace', {
          params: { path: path.value, query: { columns: COLUMNS } },
          signal,
        }),
      ),
    staleTime: 0,
  })

  const whole = computed<View>(() => [all.value?.span_ms[0] ?? 0, all.value?.span_ms[1] ?? 1])
  /** None while the whole is in sight. */
  const picked = ref<View | null>(null)
  const view = computed<View>(() => (picked.value ? within(picked.value, whole.value) : whole.value))
  watch(id, () => (picked.value = null))

  const part = computed(() => (all.value && picked.value ? asked(view.value, whole.value) : null))
  const { data: near } = useQuery({
    queryKey: computed(() => key('trace', id.value, part.value)),
    queryFn: ({ signal }) =>
      answered(
        api.GET('/api/heaps/{id}/trace', {
          params: { path: path.value, query: { columns: COLUMNS, ...part.value } },
          signal,
        }),
      ),
    enabled: computed(() => part.value !== null),
    placeholderData: keepPreviousData,
  })

  /** What is drawn: near where it is there, else the whole. */
  const trace = computed(() => {
    const [from, to] = view.value
    const { value } = near
    const holds = value && part.value && value.told_ms[0]! <= from && value.told_ms[1]! >= to
    return holds ? { ...value, span_ms: all.value!.span_ms } : all.value
  })

  function look(at: View) {
    const [from, to] = within(at, whole.value)
    picked.value = to - from >= (whole.value[1] - whole.value[0]) * 0.999 ? null : [from, to]
  }

  return {
    trace,
    all,
    error,
    retry,
    view,
    isWhole: computed(() => picked.value === null),
    look,
    zoom: (by: number, at?: number) => look(zoomed(view.value, whole.value, by, at)),
    pan: (share: number) => look(moved(view.value, whole.value, share)),
    lookAtAll: () => (picked.value = null),
  }
}
