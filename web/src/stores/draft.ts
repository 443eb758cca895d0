import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Batch, BatchFields, BatchPart, HeapShape, Lot, Measure } from '@/api/client'

/** What lies on the bench: a batch that may not be saved yet. */
export interface Draft {
  /** The batch it was opened from or saved as. */
  saved: { id: number; version: number; name: string } | null
  items: BatchPart[]
  water_l: number
  heap: HeapShape
}

const KEPT_AS = 'zymarch-draft'
const MOST_UNDO = 100

const EMPTY: Draft = {
  saved: null,
  items: [],
  water_l: 0,
  heap: { shape: 'box', length_cm: 110, width_cm: 110, height_cm: 120 },
}

/**
 * The bench's draft, shared by the bench and the layers page and kept in the
 * browser, so that a closed page or an empty battery loses nothing. Every
 * change can be undone; changes to the same amount in quick succession are one.
 */
export const useDraft = defineStore('draft', () => {
  const draft = ref<Draft>(kept())
  const undone = ref<Draft[]>([])
  const done = ref<Draft[]>([])
  let lastKind = ''
  let lastAt = 0

  watch(draft, (now) => keep(now), { deep: true })

  /** Changes the draft. Changes of one `kind` within two seconds undo together. */
  function change(kind: string, edit: (draft: Draft) => void) {
    const now = Date.now()
    if (kind !== lastKind || now - lastAt > 2000) {
      done.value.push(copy(draft.value))
      if (done.value.length > MOST_UNDO) done.value.shift()
    }
    lastKind = kind
    lastAt = now
    undone.value = []
    const next = copy(draft.value)
    edit(next)
    draft.value = next
  }

  function step(from: Draft[], to: Draft[]) {
    const other = from.pop()
    if (!other) return
    to.push(copy(draft.value))
    // What is saved is not undone with what is on the bench.
    draft.value = { ...other, saved: draft.value.saved }
    lastKind = ''
  }

  const undo = () => step(done.value, undone.value)
  const redo = () => step(undone.value, done.value)

  function setAmount(index: number, amount: number) {
    change(`amount ${index}`, ({ items }) => {
      if (items[index]) items[index].amount = amount
    })
  }

  function setWater(litres: number) {
    change('water', (next) => (next.water_l = litres))
  }

  function setHeap(heap: HeapShape) {
    change('heap', (next) => (next.heap = heap))
  }

  function put(lot: Lot, measures: Measure[], amount: number) {
    change('put', ({ items }) => items.push(partOf(lot, measures, amount)))
  }

  function takeOff(index: number) {
    change('take off', ({ items }) => items.splice(index, 1))
  }

  function clear() {
    change('clear', (next) => Object.assign(next, { ...copy(EMPTY), heap: next.heap }))
  }

  /** Lays a saved batch on the bench. */
  function open(batch: Batch) {
    change('open', (next) => Object.assign(next, fromBatch(batch)))
  }

  /** Notes that what is on the bench is what the server has. */
  function nowSaved(batch: Batch) {
    draft.value = { ...draft.value, saved: { id: batch.id, version: batch.version, name: batch.name } }
  }

  function asBatch(name: string): BatchFields {
    const { items, water_l, heap } = copy(draft.value)
    return { name, items, water_l, heap }
  }

  return {
    draft,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    undo,
    redo,
    setAmount,
    setWater,
    setHeap,
    put,
    takeOff,
    clear,
    open,
    nowSaved,
    asBatch,
  }
})

export function fromBatch(batch: Batch): Draft {
  const { id, version, name, items, water_l, heap } = batch
  return copy({ saved: { id, version, name }, items, water_l, heap })
}

/** A lot as it goes on the bench, with the figures it has now. */
function partOf(lot: Lot, measures: Measure[], amount: number): BatchPart {
  const { material, label, unit, measure_id, own } = lot
  const measure = measures.find((one) => one.id === measure_id)
  return {
    lot_id: lot.id,
    material,
    label,
    amount,
    unit,
    measure_id,
    measure_litres: measure?.litres ?? null,
    own,
  }
}

function copy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

function kept(): Draft {
  try {
    const text = localStorage.getItem(KEPT_AS)
    if (text) return { ...copy(EMPTY), ...(JSON.parse(text) as Draft) }
  } catch {
    // A browser that keeps nothing, or a draft that cannot be read: start empty.
  }
  return copy(EMPTY)
}

function keep(draft: Draft) {
  try {
    localStorage.setItem(KEPT_AS, JSON.stringify(draft))
  } catch {
    // Nothing can be kept here; the bench works all the same.
  }
}
