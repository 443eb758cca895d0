import { computed, type Ref } from 'vue'
import type { BenchAnswer, BestStep, MixSums } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import { type MadeWith, useDraft } from './draft'
import { useSay } from '@/words/useSay'
import { useStock } from '@/stock/useStock'

type Complaint = 'refused' | 'green' | 'brown' | 'dry' | 'wet' | 'dense' | 'packs' | 'right'

const WHY: Record<MixSums['complaints'][number]['flaw'], Complaint> = {
  'too-green': 'green',
  'too-brown': 'brown',
  'too-wet': 'wet',
  'too-dense': 'dense',
  'too-dry': 'dry',
  packs: 'packs',
}

/** The sentence of a size. */
const SIZED: Record<NonNullable<BenchAnswer['size']>, string> = {
  'too-small-to-heat': 'small',
  'too-thin-to-heat': 'thin',
  'just-big-enough': 'just',
  'big-enough': 'large',
  'stays-cool': 'cool',
}

/** Holds the place of the step in its sentence. */
const STEP = '\u2016'

/** What is wrong with a mix that may go in: the gravest of it, and how far. */
export function complaintOf({ complaints }: Pick<MixSums, 'complaints'>): { key: string; why: Complaint } {
  const [gravest] = complaints
  if (!gravest) return { key: 'right', why: 'right' }
  const why = WHY[gravest.flaw]
  return { key: gravest.far && why !== 'dense' ? `far-${why}` : why, why }
}

/** The answer the bench is opened for: how the mix stands, and the one step that mends it most. */
export function useVerdict(answer: Ref<BenchAnswer | undefined>) {
  const say = useSay()
  const { t } = say
  const store = useDraft()
  const { keepsHeat } = useLimits()
  const { lots, measures } = useStock()

  const refused = computed(() => answer.value?.mix?.findings.find((found) => found.code === 'must-not-go-in'))

  const complaint = computed<{ key: string; why: Complaint }>(() => {
    const mix = answer.value?.mix
    if (!mix) return { key: 'right', why: 'right' }
    if (refused.value) return { key: 'refused', why: 'refused' }
    return complaintOf(mix)
  })

  const isRight = computed(() => complaint.value.key === 'right')

  function name(index: number): string {
    const part = store.draft.items[index]
    return part ? say.nameOf(part.material, part.label) : ''
  }

  /** What the step is made with: a part on the bench, or a lot that is not there yet; water is neither. */
  const mendsWith = computed<MadeWith | null>(() => {
    const step = answer.value?.best_step
    if (step?.item != null) {
      const part = store.draft.items[step.item]
      return part ? { index: step.item, part, lot: null } : null
    }
    const lot = lots.value?.find(({ id }) => id === step?.lot)
    return lot ? { index: null, part: lot, lot } : null
  })

  /** The step in words, with its sentence around it. */
  const mend = computed<{ before: string; step: string; after: string } | null>(() => {
    if (refused.value) return { before: t('verdict.takeOut'), step: '', after: '' }
    const step = answer.value?.best_step
    if (!step) return isRight.value ? null : { before: t('verdict.nothing'), step: '', after: '' }
    const made = mendsWith.value
    // A lot that the farm has and this page does not know yet: both are asked anew.
    if (!made && !isWater(step)) return null
    let text: string
    let count = Math.abs(step.amount)
    if (!made) {
      text = t(step.amount > 0 ? 'verdict.do.water' : 'verdict.do.lessWater', { amount: say.water(count) })
      count /= say.bucket()?.litres ?? 1
    } else {
      const { unit, measure_id, material, label } = made.part
      const how = step.amount < 0 ? 'less' : made.index === null ? 'add' : 'more'
      const said = unit !== 'measure' ? 'plain' : count === 1 ? 'one' : 'do'
      text = t(`verdict.${said}.${how}`, {
        amount: say.amount(count, unit, measure_id),
        count: say.count(count),
        unit: say.unitWord(unit, measure_id, count),
        name: say.nameWithin(material, label),
      })
      if (step.then_water_l > 0) {
        text = t('verdict.do.withWater', { step: text, water: say.water(step.then_water_l) })
        count = 2
      }
    }
    const ending = step.puts_right ? 'right' : 'help'
    const whole = t(`verdict.${ending}${count > 1 ? 's' : ''}`, { step: STEP })
    const [before = '', after = ''] = whole.split(STEP)
    return { before, step: capital(text), after }
  })

  /** Does what the verdict says. */
  function doIt() {
    const step = answer.value?.best_step
    if (!step) return
    const made = mendsWith.value
    if (isWater(step)) return store.setWater(Math.max(0, store.draft.water_l + step.amount))
    if (made) store.addAll([{ step: made, amount: step.amount }], step.then_water_l, measures.value ?? [])
  }

  const is = computed(() => {
    const given = answer.value
    if (!given?.mix) return t(given?.why_not === 'no-nitrogen' ? 'bench.noNitrogen' : 'bench.empty')
    return t(`verdict.is.${complaint.value.key}`, { name: name(refused.value?.item ?? 0) })
  })

  const headline = computed(() => {
    if (!answer.value?.mix || !mend.value) return is.value
    const { before, step, after } = mend.value
    return `${is.value} ${before}${step}${after}`
  })

  const reason = computed(() => {
    const given = answer.value
    if (!given?.mix) return given?.why_not === 'no-nitrogen' ? t('bench.noNitrogenHint') : ''
    const size = { size: say.heap(given.mix.heap_volume_l), least: say.heap(keepsHeat.value ?? 0) }
    const sized = t(`verdict.${SIZED[given.size ?? 'big-enough']}`, size)
    return `${t(`verdict.because.${complaint.value.why}`)} ${sized}`
  })

  return { headline, is, mend, doIt, reason, isRight }
}

const isWater = ({ item, lot }: BestStep) => item == null && lot == null

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
