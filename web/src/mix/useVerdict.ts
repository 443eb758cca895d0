import { computed, type Ref } from 'vue'
import type { BenchAnswer, MixSums } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import { useDraft } from './draft'
import type { StepLot } from './useBench'
import { useSay } from '@/words/useSay'

type Complaint = 'refused' | 'green' | 'brown' | 'dry' | 'wet' | 'dense' | 'packs' | 'right'

const WHY: Record<MixSums['complaints'][number]['flaw'], Complaint> = {
  'too-green': 'green',
  'too-brown': 'brown',
  'too-wet': 'wet',
  'too-dense': 'dense',
  'too-dry': 'dry',
  packs: 'packs',
}

/** The answer the bench is opened for: how the mix stands, and the one step that mends it most. */
export function useVerdict(answer: Ref<BenchAnswer | undefined>, stepLots: Ref<StepLot[]>) {
  const say = useSay()
  const { t } = say
  const store = useDraft()
  const { keepsHeat } = useLimits()

  const refused = computed(() => answer.value?.mix?.findings.find((found) => found.code === 'must-not-go-in'))

  const complaint = computed<{ key: string; why: Complaint }>(() => {
    const mix = answer.value?.mix
    if (!mix) return { key: 'right', why: 'right' }
    if (refused.value) return { key: 'refused', why: 'refused' }
    const gravest = mix.complaints[0]
    if (!gravest) return { key: 'right', why: 'right' }
    const why = WHY[gravest.flaw]
    return { key: gravest.far && why !== 'dense' ? `far-${why}` : why, why }
  })

  const isRight = computed(() => complaint.value.key === 'right')

  function name(index: number): string {
    const part = store.draft.items[index]
    return part ? say.nameOf(part.material, part.label) : ''
  }

  const mend = computed(() => {
    if (refused.value) return t('verdict.takeOut')
    const step = answer.value?.best_step
    if (!step) return isRight.value ? '' : t('verdict.nothing')
    const lot = step.step == null ? null : stepLots.value[step.step]
    let text: string
    let count: number
    if (!lot) {
      text = t(step.count > 0 ? 'verdict.do.water' : 'verdict.do.lessWater', {
        amount: say.water(Math.abs(step.count)),
      })
      count = Math.abs(step.count) / (say.bucket()?.litres ?? 1)
    } else {
      const { unit, measure_id, material, label } = lot.part
      count = Math.abs(step.count) * lot.step
      const how = step.count < 0 ? 'less' : lot.index === null ? 'add' : 'more'
      const said = unit !== 'measure' ? 'plain' : count === 1 ? 'one' : 'do'
      text = t(`verdict.${said}.${how}`, {
        amount: say.amount(count, unit, measure_id),
        count: say.count(count),
        unit: say.unitWord(unit, measure_id, count),
        name: say.nameOf(material, label).toLowerCase(),
      })
      if (step.then_water_l > 0) {
        text = t('verdict.do.withWater', { step: text, water: say.water(step.then_water_l) })
        count = 2
      }
    }
    const ending = step.puts_right ? 'right' : 'help'
    return t(`verdict.${ending}${count > 1 ? 's' : ''}`, { step: capital(text) })
  })

  const headline = computed(() => {
    const given = answer.value
    if (!given?.mix) return t(given?.why_not === 'no-nitrogen' ? 'bench.noNitrogen' : 'bench.empty')
    const is = t(`verdict.is.${complaint.value.key}`, { name: name(refused.value?.item ?? 0) })
    return mend.value ? `${is} ${mend.value}` : is
  })

  const reason = computed(() => {
    const given = answer.value
    if (!given?.mix) return given?.why_not === 'no-nitrogen' ? t('bench.noNitrogenHint') : ''
    const size = { size: say.heap(given.mix.heap_volume_l), least: say.heap(keepsHeat.value ?? 0) }
    const sized =
      given.size === 'too-small-to-heat'
        ? t('verdict.small', size)
        : given.size === 'just-big-enough'
          ? t('verdict.just', size)
          : t('verdict.large', size)
    return `${t(`verdict.because.${complaint.value.why}`)} ${sized}`
  })

  return { headline, reason, isRight }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
