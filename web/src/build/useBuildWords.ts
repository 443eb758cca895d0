import { computed, type Ref } from 'vue'
import type { BatchPart, BuildPortion, BuildStep, Heap } from '@/api/client'
import { useMaterials, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** A heap on build day in words. */
export function useBuildWords(heap: Ref<Heap | undefined>) {
  const say = useSay()
  const { t } = say
  const { byId } = useMaterials()
  const { hatchOf } = useNames()

  const items = computed(() => heap.value?.items ?? [])
  const names = computed(() => items.value.map((part) => say.nameOf(part.material, part.label)))
  const hatches = computed(() => items.value.map((part) => hatchOf(part.material)))

  /** "2 barrows". */
  function amount({ item, amount }: BuildPortion, added: BatchPart[] = []): string {
    const part = items.value[item] ?? added[item - items.value.length]
    return part ? say.carried(amount, part.unit, part.measure_id) : ''
  }
  function name(item: number, added: BatchPart[] = []): string {
    const part = added[item - items.value.length]
    return say.within(names.value[item] ?? (part ? say.nameOf(part.material, part.label) : ''))
  }

  /** "2 barrows barley straw, 1 bucket water". */
  function inWords(
    { portions, water_l }: Pick<BuildStep, 'portions' | 'water_l'>,
    beside = '',
    added: BatchPart[] = [],
  ): string {
    const parts = portions.map((portion) => `${amount(portion, added)} ${name(portion.item, added)}`)
    if (!parts.length && beside) parts.push(beside)
    if (water_l > 0.05) parts.push(t('build.water', { amount: say.water(water_l) }))
    return parts.join(', ') || t('build.nothing')
  }

  function besideOf({ role, beside_l }: BuildStep): string {
    return beside_l > 0 ? t(`layers.beside.${role}`) : ''
  }

  /** How it is laid: by what it is for, else by what kind of stuff it is. */
  function how({ role, portions }: BuildStep): string {
    if (portions.length > 1) return t('build.how.load')
    if (role !== 'mix') return t(`build.how.${role}`)
    const material = byId.value.get(items.value[portions[0]?.item ?? -1]?.material ?? '')
    return material ? t(`build.how.${material.kind}`) : ''
  }

  /** What to mind of materials while building. */
  function cautionsOf(parts: BatchPart[]): string[] {
    const codes = parts.flatMap(({ material }) =>
      (byId.value.get(material)?.cautions ?? [])
        .filter(({ moments }) => moments.includes('build'))
        .map(({ code }) => code),
    )
    return [...new Set(codes)].map((code) => t(`caution.${code}`))
  }
  const cautions = ({ portions }: BuildStep) =>
    cautionsOf(portions.flatMap(({ item }) => items.value[item] ?? []))

  return { say, t, items, names, hatches, amount, name, inWords, besideOf, how, cautions, cautionsOf }
}
