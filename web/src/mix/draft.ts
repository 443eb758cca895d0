import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Batch, BatchFields, BatchPart, HeapAmounts, HeapShape, Lot, Measure } from '@/api/client'
import { usePerson } from '@/farm/person'

/** The batch a draft was opened from or saved as, and what it held then. */
export interface Saved {
  id: string
  version: number
  name: string
  as: string
}

/** What lies on the bench: a batch that may not be saved yet. */
export interface Draft {
  saved: Saved | null
  items: BatchPart[]
  water_l: number
  heap: HeapShape
  /** How many of them alike hold it. */
  heaps: number
  method: string | null
  /** The day it is to be built, as 2026-03-22. */
  build_on: string | null
  starters: string[]
  /** What has been ticked off the list of things to prepare, and is not with a saved batch yet. */
  done: string[]
}

/** What a mix is added to with: a part that is in it, by its place, or a lot that is not yet. */
export interface MadeWith {
  index: number | null
  part: Pick<BatchPart, 'unit' | 'measure_id' | 'material' | 'label'>
  lot: Lot | null
}

const KEPT_AS = 'zymarch-draft'
const MOST_UNDO = 100

const EMPTY: Draft = {
  saved: null,
  items: [],
  water_l: 0,
  heap: { shape: 'box', length_cm: 110, width_cm: 110, height_cm: 120 },
  heaps: 1,
  method: null,
  build_on: null,
  starters: [],
  done: [],
}

/**
 * The bench's draft, shared by the bench and the layers page and kept in the
 * browser, so that a closed page or an empty battery loses nothing. Every
 * change can be undone; changes to the same amount in quick succession are one.
 */
export const useDraft = defineStore('draft', () => {
  const person = usePerson()
  const draft = ref<Draft>(kept(person.site))
  const undone = ref<Draft[]>([])
  const done = ref<Draft[]>(keptHistory(person.site))
  /** Another window of this browser changed what lies here. */
  const isFromElsewhere = ref(false)
  let lastFigure = ''
  let lastAt = 0

  watch(
    draft,
    (now) => {
      if (JSON.stringify(now) === read(keptAs(person.site))) return
      keep(keptAs(person.site), now)
      keep(historyAs(person.site), done.value.slice(-MOST_KEPT))
    },
    { deep: true },
  )
  // One bench in all windows: the other's change is taken over, and can be undone here.
  window.addEventListener('storage', ({ key, newValue }) => {
    if (key !== keptAs(person.site) || !newValue || newValue === JSON.stringify(draft.value)) return
    change((next) => Object.assign(next, { ...copy(EMPTY), ...(JSON.parse(newValue) as Draft) }))
    isFromElsewhere.value = true
  })
  // Each site has a bench of its own.
  watch(
    () => person.site,
    (now, before) => {
      // The site was not known yet; what lay on the bench lay on this one.
      if (before === null) return keep(keptAs(now), draft.value)
      draft.value = kept(now)
      done.value = keptHistory(now)
      undone.value = []
    },
  )

  /** Changes the draft. Changes of the same `figure` within two seconds undo together. */
  function change(edit: (draft: Draft) => void, figure = '') {
    const now = Date.now()
    if (!figure || figure !== lastFigure || now - lastAt > 2000) {
      done.value.push(copy(draft.value))
      if (done.value.length > MOST_UNDO) done.value.shift()
    }
    lastFigure = figure
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
    draft.value = other
    lastFigure = ''
  }

  const undo = () => step(done.value, undone.value)
  const redo = () => step(undone.value, done.value)

  function setAmount(index: number, amount: number) {
    change(({ items }) => {
      if (items[index]) items[index].amount = amount
    }, `amount ${index}`)
  }

  function setWater(litres: number) {
    change((next) => (next.water_l = litres), 'water')
  }

  /** Another heap; so many alike as before, unless it is of another kind. */
  function setHeap(heap: HeapShape) {
    change((next) => {
      if (heap.shape !== next.heap.shape) next.heaps = 1
      next.heap = heap
    }, 'heap')
  }

  /** The mix in so many heaps alike. */
  function setHeaps(heaps: number) {
    change((next) => (next.heaps = heaps))
  }

  /** A method, and the heap that it is built in. */
  function setMethod(method: string | null, heap: HeapShape = draft.value.heap) {
    change((next) => {
      if (heap.shape !== next.heap.shape) next.heaps = 1
      Object.assign(next, { method, heap })
    }, 'method')
  }

  function setBuildOn(day: string | null) {
    change((next) => (next.build_on = day), 'build day')
  }

  /** Takes a starter or leaves it. */
  function toggleStarter(id: string) {
    change((next) => {
      next.starters = next.starters.includes(id)
        ? next.starters.filter((one) => one !== id)
        : [...next.starters, id]
    })
  }

  /** Ticks something off the list, or puts it back. It changes nothing of the batch, so there is nothing to undo. */
  function tick(key: string) {
    const { done } = draft.value
    const now = done.includes(key) ? done.filter((one) => one !== key) : [...done, key]
    draft.value = { ...draft.value, done: now }
  }

  /** The same mix, larger or smaller. */
  function resize({ amounts, water_l }: HeapAmounts) {
    change((next) => {
      next.items.forEach((part, index) => (part.amount = amounts[index] ?? part.amount))
      next.water_l = water_l
    })
  }

  function put(lot: Lot, measures: Measure[], amount: number) {
    change(({ items }) => items.push(partOf(lot, measures, amount)))
  }

  /** Several at once, and water after them: one step to undo. */
  function addAll(more: { step: MadeWith; amount: number }[], water_l: number, measures: Measure[]) {
    change((next) => {
      for (const { step, amount } of more) {
        const there = step.index === null ? null : next.items[step.index]
        if (there) there.amount += amount
        else if (step.lot) next.items.push(partOf(step.lot, measures, amount))
      }
      next.water_l += water_l
    })
  }

  /** Puts on what was said, in stock or not: one step to undo. */
  function say(parts: BatchPart[], water_l: number) {
    change((next) => {
      next.items.push(...parts)
      next.water_l += water_l
    })
  }

  /** Lays a mix in place of what is there: a new one, not saved yet. */
  function lay(parts: { lot: Lot; amount: number }[], measures: Measure[], water_l: number) {
    change((next) =>
      Object.assign(next, {
        saved: null,
        items: parts.map(({ lot, amount }) => partOf(lot, measures, amount)),
        water_l,
        done: [],
      }),
    )
  }

  /** Takes over the figures that lots have now. */
  function refigure(figures: Map<number, Pick<BatchPart, 'own' | 'tests'>>) {
    change(({ items }) => {
      for (const [index, now] of figures) if (items[index]) Object.assign(items[index], now)
    })
  }

  function takeOff(index: number) {
    change(({ items }) => items.splice(index, 1))
  }

  function clear() {
    change((next) => Object.assign(next, { ...copy(EMPTY), heap: next.heap, method: next.method }))
  }

  /** Lays the recipe of something else on the bench, as nothing that is saved yet. */
  function begin(recipe: Pick<Draft, 'items' | 'water_l' | 'heap' | 'method'>) {
    change((next) => Object.assign(next, copy({ ...EMPTY, ...recipe })))
  }

  /** Lays a saved batch on the bench. */
  function open(batch: Batch) {
    change((next) => Object.assign(next, fromBatch(batch)))
    nowSaved(batch)
  }

  /**
   * Notes what the server has of the draft. Its earlier states belong to the
   * same batch: undoing goes back in what is on the bench, not in what is saved.
   */
  function nowSaved(batch: Batch) {
    const before = draft.value.saved?.id
    const { saved } = fromBatch(batch)
    for (const state of [...done.value, ...undone.value]) {
      if (state.saved?.id === before) state.saved = saved
    }
    draft.value = { ...draft.value, saved }
  }

  const isChanged = computed(
    () => draft.value.saved !== null && draft.value.saved.as !== contents(draft.value),
  )

  function asBatch(name: string): BatchFields {
    const { items, water_l, heap, heaps, method, build_on, starters } = copy(draft.value)
    return { name, items, water_l, heap, heaps, method, build_on, starters }
  }

  return {
    draft,
    isFromElsewhere,
    isChanged,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    undo,
    redo,
    setAmount,
    setWater,
    setHeap,
    setHeaps,
    setMethod,
    setBuildOn,
    toggleStarter,
    tick,
    resize,
    put,
    addAll,
    say,
    lay,
    refigure,
    takeOff,
    clear,
    begin,
    open,
    nowSaved,
    asBatch,
  }
})

function fromBatch(batch: Batch): Draft {
  const {
    id,
    version,
    name,
    items,
    water_l,
    heap,
    heaps = 1,
    method = null,
    build_on = null,
    starters = [],
  } = batch
  const saved = { id, version, name, as: contents(batch) }
  return copy({ saved, items, water_l, heap, heaps, method, build_on, starters, done: [] })
}

/** What is in a batch, as text that is equal when the contents are. */
function contents({
  items,
  water_l,
  heap,
  heaps,
  method,
  build_on,
  starters,
}: Pick<BatchFields, 'items' | 'water_l' | 'heap' | 'heaps' | 'method' | 'build_on' | 'starters'>): string {
  const sorted = (value: object) =>
    Object.entries(value)
      .filter(([, entry]) => entry != null)
      .sort()
  const parts = items.map((part) =>
    sorted({ ...part, own: sorted(part.own ?? {}), tests: (part.tests ?? []).map(sorted) }),
  )
  return JSON.stringify([
    parts,
    water_l,
    sorted(heap),
    heaps ?? 1,
    method ?? null,
    build_on ?? null,
    starters ?? [],
  ])
}

/** A lot as it goes into a mix, with the figures it has now. */
export function partOf(lot: Lot, measures: Measure[], amount: number): BatchPart {
  const { material, label, unit, measure_id, own, tests } = lot
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
    tests,
  }
}

function copy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

function keptAs(site: string | null): string {
  return site === null ? KEPT_AS : `${KEPT_AS}-${site}`
}

/** So many earlier states outlive the page. */
const MOST_KEPT = 20
const historyAs = (site: string | null) => `${keptAs(site)}-before`

function kept(site: string | null): Draft {
  const found = parsed(keptAs(site)) as Draft | null
  return { ...copy(EMPTY), ...found }
}

function keptHistory(site: string | null): Draft[] {
  const found = parsed(historyAs(site))
  return Array.isArray(found) ? (found as Draft[]).map((one) => ({ ...copy(EMPTY), ...one })) : []
}

/** What a browser kept; nothing where it keeps nothing, or where it cannot be read. */
function parsed(key: string): unknown {
  try {
    return JSON.parse(read(key) ?? 'null')
  } catch {
    return null
  }
}

function read(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}

function keep(key: string, value: unknown) {
  try {
    localStorage.setItem(key, JSON.stringify(value))
  } catch {
    // Nothing can be kept here; the bench works all the same.
  }
}
