import { computed, reactive, ref, watch } from 'vue'
import type { LabFigure } from '@/api/client'
import { useHeaps } from '@/build/useHeaps'
import { useTending } from '@/tend/useTending'
import { useCompostList } from './useFinish'

interface Stuff {
  litres: number | null
  density_kg_l: number | null
  moisture_pct: number | null
  n_pct: number | null
  p_pct: number | null
  k_pct: number | null
}

/** The compost that is reckoned with: typed, as a heap is expected to be, or as it was taken out of one. */
export function useStuff(heap: string | null, compost: string | null) {
  const { heaps } = useHeaps()
  const built = computed(() =>
    (heaps.value ?? []).filter(({ built_at, emptied_at }) => built_at && !emptied_at),
  )
  /** A heap, or compost that was taken out of one. */
  const picked = ref(heap ? `heap ${heap}` : compost ? `compost ${compost}` : '')
  const pickedOf = (kind: 'heap' | 'compost') =>
    computed(() => (picked.value.startsWith(`${kind} `) ? picked.value.slice(kind.length + 1) : ''))
  const heapId = pickedOf('heap')
  const compostId = pickedOf('compost')
  const { heap: from } = useTending(heapId)
  const { composts } = useCompostList()
  const stored = computed(() => composts.value?.find(({ id }) => id === compostId.value) ?? null)

  /** What finished compost usually is, where nothing was measured. */
  const stuff = reactive<Stuff>({
    litres: 500,
    density_kg_l: 0.55,
    moisture_pct: 45,
    n_pct: 1.5,
    p_pct: 0.4,
    k_pct: 1.2,
  })
  watch(
    () => heapId.value && from.value?.now,
    (now) => {
      if (!now) return
      stuff.litres = Math.round(now.volume_l.value / 10) * 10
      stuff.moisture_pct = Math.round(now.moisture_pct.value)
    },
    { immediate: true },
  )

  /** Compost that was taken out says itself what it is. */
  const held = (figure: string) => stored.value?.holds.find((one) => one.figure === figure)?.value ?? null
  watch(
    stored,
    (of) => {
      if (!of) return
      const rounded = (value: number | null) => (value === null ? null : Number(value.toPrecision(3)))
      Object.assign(stuff, {
        litres: Math.round(of.litres),
        density_kg_l: rounded(of.density_kg_l),
        moisture_pct: Math.round(held('moisture-pct') ?? 45),
        n_pct: rounded(held('n-pct')),
        p_pct: rounded(held('p-pct')),
        k_pct: rounded(held('k-pct')),
      })
    },
    { immediate: true },
  )

  /** Salts, where they were found and not only estimated. */
  const salts = computed(
    () =>
      stored.value?.holds.find(({ figure, from }) => figure === 'ec-ds-m' && from === 'lab')?.value ?? null,
  )
  /** How far an estimate may be off, as shares of its value; none of what was found or typed. */
  function off(figure: LabFigure, typed: number | null): [number, number] | null {
    const one = stored.value?.holds.find((held) => held.figure === figure)
    if (one?.low == null || one.high == null || typed !== Number(one.value.toPrecision(3))) return null
    return [one.low / one.value, one.high / one.value]
  }

  return { picked, built, composts, stored, stuff, salts, off }
}
