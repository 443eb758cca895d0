// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import type { Batch, BatchPart } from '@/api/client'
import { useDraft } from './draft'

const straw = (amount: number): BatchPart => ({
  lot_id: 'lot',
  material: 'barley-straw',
  label: null,
  amount,
  unit: 'kg',
  measure_id: null,
  measure_litres: null,
  own: {},
})

const batch = (id: string, amount: number, version = 1): Batch => ({
  id,
  version,
  name: `Batch ${id}`,
  created_at: '',
  updated_at: '',
  water_l: 10,
  heap: { shape: 'ring', diameter_cm: 100, height_cm: 100 },
  items: [straw(amount)],
})

const amount = () => useDraft().draft.items[0]?.amount

describe('the draft on the bench', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('is undone after the page was closed as well', async () => {
    const before = useDraft()
    before.open(batch('one', 5))
    before.setAmount(0, 6)
    await nextTick()
    setActivePinia(createPinia())
    const after = useDraft()
    expect(after.draft.items[0]?.amount).toBe(6)
    after.undo()
    expect(after.draft.items[0]?.amount).toBe(5)
  })

  it('takes over what another window did, and can undo it', async () => {
    const store = useDraft()
    store.open(batch('one', 5))
    await nextTick()
    const theirs = JSON.stringify({ ...store.draft, items: [straw(9)] })
    window.dispatchEvent(new StorageEvent('storage', { key: 'zymarch-draft', newValue: theirs }))
    expect([amount(), store.isFromElsewhere]).toEqual([9, true])
    store.undo()
    expect(amount()).toBe(5)
  })

  it('undoes and does again', () => {
    const store = useDraft()
    store.open(batch('one', 5))
    store.setAmount(0, 6)
    store.setWater(20)
    store.undo()
    expect(store.draft.water_l).toBe(10)
    store.undo()
    expect(amount()).toBe(5)
    store.redo()
    expect(amount()).toBe(6)
  })

  it('undoes quick steps of one amount together', () => {
    const store = useDraft()
    store.open(batch('one', 5))
    for (const next of [6, 7, 8]) store.setAmount(0, next)
    store.undo()
    expect(amount()).toBe(5)
  })

  it('knows whether it differs from what is saved, by what is in it', () => {
    const store = useDraft()
    store.open(batch('one', 5))
    expect(store.isChanged).toBe(false)
    store.setAmount(0, 6)
    expect(store.isChanged).toBe(true)
    store.setAmount(0, 5)
    expect(store.isChanged).toBe(false)
  })

  it('goes back to the batch that lay there before, not only to its amounts', () => {
    const store = useDraft()
    store.open(batch('one', 5))
    store.open(batch('2', 50))
    store.undo()
    expect(store.draft.saved?.id).toBe('one')
    expect(amount()).toBe(5)
  })

  it('still belongs to the batch it was saved as when an earlier step is undone', () => {
    const store = useDraft()
    store.open(batch('one', 5))
    store.setAmount(0, 6)
    store.nowSaved(batch('one', 6, 2))
    store.undo()
    expect(store.draft.saved).toMatchObject({ id: 'one', version: 2 })
    expect(store.isChanged).toBe(true)
  })
})
