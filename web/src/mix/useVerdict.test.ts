// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import type { BenchAnswer, BestStep, MixSums } from '@/api/client'
import { lot, serveFarm, sums } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import { useDraft } from './draft'
import { useVerdict } from './useVerdict'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  localStorage.clear()
})

type Complaint = MixSums['complaints'][number]
const complaint = (flaw: Complaint['flaw'], far = false) => ({ flaw, far }) as Complaint

async function verdict(answer: Partial<BenchAnswer>) {
  let got!: ReturnType<typeof useVerdict>
  mounted(
    defineComponent(() => {
      useDraft().put(lot(), [], 4)
      got = useVerdict(ref({ one_more: [], ...answer } as BenchAnswer))
      return () => h('div')
    }),
  )
  await flushPromises()
  return got
}
const mix = (changes: Partial<MixSums> = {}) =>
  ({ ...sums, findings: [], ...changes }) as unknown as BenchAnswer['mix']
/** A step that puts all right: of the straw on the bench, unless it is said otherwise. */
const step = (changes: Partial<BestStep>): BestStep => ({
  after: sums,
  puts_right: true,
  then_water_l: 0,
  item: 0,
  amount: 1,
  ...changes,
})

test('an empty bench asks for something, and straw without nitrogen says why there is no sum', async () => {
  const nothing = await verdict({ mix: null, why_not: 'empty' })
  const pure = await verdict({ mix: null, why_not: 'no-nitrogen' })
  expect(nothing.headline.value).not.toBe(pure.headline.value)
  expect(pure.reason.value.length).toBeGreaterThan(20)
})

test('a right mix is said to be right, and nothing is to be done', async () => {
  const { headline, isRight } = await verdict({ mix: mix(), size: 'just-big-enough' })
  expect(isRight.value).toBe(true)
  expect(headline.value).toBe('This mix is right.')
})

test('the gravest complaint leads, and how far it is off is said', async () => {
  const near = await verdict({ mix: mix({ complaints: [complaint('too-brown'), complaint('too-dry')] }) })
  const far = await verdict({ mix: mix({ complaints: [complaint('too-brown', true)] }) })
  expect(near.headline.value).toMatch(/^A little too brown\./)
  expect(far.headline.value).toMatch(/too brown/i)
  expect(far.headline.value).not.toMatch(/little/)
})

test('one barrow is "one more barrow", several are counted, and fewer are "less"', async () => {
  const wrong = mix({ complaints: [complaint('too-green')] })
  const of = (amount: number) => verdict({ mix: wrong, best_step: step({ amount }) })
  const [one, two, less] = [await of(1), await of(2), await of(-2)]
  expect(one.headline.value).toMatch(/One more barrow of barley straw puts it right\./)
  expect(two.headline.value).toMatch(/2|Two more barrows of barley straw put it right\./)
  expect(less.headline.value).toMatch(/less|fewer/i)
})

test('what is not on the bench yet is added, and a lot that is not known here is no water', async () => {
  const wrong = mix({ complaints: [complaint('too-green')] })
  const known = await verdict({ mix: wrong, best_step: step({ item: null, lot: 'lot-1', amount: 1 }) })
  expect(known.headline.value).toMatch(/barrow of barley straw/)
  const unknown = await verdict({ mix: wrong, best_step: step({ item: null, lot: 'lot-9', amount: 1 }) })
  expect(unknown.mend.value).toBeNull()
})

test('water is said in buckets, and a step that only helps is not said to put it right', async () => {
  const wrong = mix({ complaints: [complaint('too-dry')] })
  const { headline } = await verdict({
    mix: wrong,
    best_step: step({ item: null, amount: 24, puts_right: false }),
  })
  expect(headline.value).toMatch(/2 buckets/)
  expect(headline.value).toMatch(/help/)
})

test('what must not go in comes before all sums', async () => {
  const refused = mix({ complaints: [complaint('too-dry')] })
  refused!.findings = [{ code: 'must-not-go-in', item: 0 }] as never
  const { headline, isRight } = await verdict({ mix: refused })
  expect(headline.value).toMatch(/Barley straw/)
  expect(isRight.value).toBe(false)
})

test('the size is told beside the volume from which on a heap keeps its heat', async () => {
  const { reason } = await verdict({ mix: mix({ heap_volume_l: 400 }), size: 'too-small-to-heat' })
  expect(reason.value).toMatch(/0\.4\sm³/)
  expect(reason.value).toMatch(/at least 1\.0\sm³/)
})
