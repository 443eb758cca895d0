import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { answered, api, type Lot, type ThumbRule } from '@/api/client'
import { key } from '@/api/keys'
import { search } from '@/stock/search'
import { type By, readRule, type RuleWords, STANDS_FOR, UNSAID } from './thumb'
import { useMaterials } from '@/farm/useFarm'
import { useStock } from '@/stock/useStock'

/** One part of the rule on screen: how many, and the materials that stand for it. */
export interface RulePart {
  parts: number
  of: string[]
}

/** A rule of thumb that is typed or picked, the materials that stand for its parts, and what it truly gives. */
export function useRule() {
  const { t } = useI18n()
  const { materials, byId } = useMaterials()
  const { lots } = useStock()

  const rule = reactive<{ by: By; parts: RulePart[] }>({ by: 'volume', parts: [] })
  const isUnread = ref(false)

  const list = (key: string) => t(`rules.words.${key}`).split(',')
  const words = (): RuleWords => ({
    weight: list('weight'),
    volume: list('volume'),
    filler: list('filler'),
    numbers: list('numbers'),
  })

  /** Takes a rule as it is said. Where it names nothing, the browns and greens of the stock stand in. */
  function say(text: string) {
    const said = readRule(text, words())
    isUnread.value = said === null
    if (!said) return
    const taken: string[] = []
    rule.by = said.by
    rule.parts = said.parts.map(({ parts, word }, at) => {
      const kind = kindOf(word) ?? (word ? null : (UNSAID[at] ?? 'green'))
      const id = kind
        ? standIn(kind, taken)
        : (search(materials.value, word)[0]?.id ?? standIn('green', taken))
      taken.push(id)
      return { parts, of: [id] }
    })
  }

  const kindOf = (word: string) => UNSAID.find((kind) => list(kind).includes(word)) ?? null

  /** What the farm has of a kind, that does not stand for another part yet; else a common one. */
  function standIn(kind: string, taken: string[]): string {
    const kinds = STANDS_FOR[kind] ?? []
    const isFree = (lot: Lot) => lot.amount > 0 && !lot.must_not_go_in && !taken.includes(lot.material)
    // What there is most of stands for the rest.
    const found = (lots.value ?? [])
      .filter((lot) => isFree(lot) && kinds.includes(byId.value.get(lot.material)?.kind ?? ''))
      .sort((a, b) => b.kg - a.kg)[0]
    return found?.material ?? (kind === 'brown' ? 'wheat-straw' : 'cattle-manure-fresh')
  }

  /** A material with the figures of the lot that is on hand, where one is. */
  function itemOf(material: string) {
    const lot = (lots.value ?? []).find((one) => one.material === material)
    return { material, ...lot?.own, tests: lot?.tests ?? [] }
  }

  const request = computed<ThumbRule>(() => ({
    format: 'zymarch-thumb/1',
    by: rule.by,
    parts: rule.parts.map(({ parts, of }) => ({ parts, of: of.map(itemOf) })),
  }))
  const query = useQuery({
    queryKey: key('thumb', request),
    queryFn: ({ signal }) => answered(api.POST('/api/thumb', { body: request.value, signal })),
    enabled: computed(
      () => rule.parts.length > 0 && rule.parts.every(({ parts, of }) => parts > 0 && of.length > 0),
    ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  })
  const isKnown = computed(() => materials.value.length > 0 && lots.value !== undefined)

  return {
    rule,
    say,
    itemOf,
    isUnread,
    isKnown,
    answer: query.data,
    error: query.error,
    retry: query.refetch,
  }
}
