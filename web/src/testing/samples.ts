/** A small farm for tests of parts of the page, in the types of the API: when those change, this no longer compiles. */
import type { Batch, Heap, Limits, Lot, Material, Measure, MixSums, Site } from '@/api/client'
import { serve } from './served'

export const site: Site = {
  id: 'site-1',
  version: 1,
  name: 'Velluma Terraces',
  altitude_m: 2900,
  climate: null,
}

export const bucket: Measure = {
  id: 'bucket',
  version: 1,
  litres: 12,
  name: 'bucket',
  plural: 'buckets',
  glyph: 'bucket',
  way: { by: 'litres', litres: 12 },
  heaped: 1,
}

export const barrow: Measure = {
  ...bucket,
  id: 'barrow',
  litres: 70,
  name: 'barrow',
  plural: 'barrows',
  glyph: 'barrow',
}

const book = (value: number) => ({ value, origin: 'book' as const })

/** Straw, four barrows of it. */
export function lot(changes: Partial<Lot> = {}): Lot {
  return {
    id: 'lot-1',
    version: 3,
    created_at: '2026-03-01T08:00:00Z',
    material: 'barley-straw',
    label: null,
    amount: 4,
    unit: 'measure',
    measure_id: 'barrow',
    own: {},
    gathered_on: '2026-03-01',
    price: null,
    kg: 14,
    litres: 280,
    figures: {
      moisture_pct: book(12),
      n_pct: book(0.6),
      c_n: book(80),
      ash_pct: book(7),
      lignin_pct: book(12),
      density_kg_l: book(0.05),
      settle: book(0.4),
      decays_pct: book(100),
      inert: false,
    },
    tests: [],
    age_days: 13,
    days_left: null,
    rescue: null,
    must_not_go_in: false,
    ...changes,
  }
}

const spread = (typical: number) => ({ typical, low: typical * 0.8, high: typical * 1.2 })

export const straw = {
  id: 'barley-straw',
  name: 'Barley straw',
  kind: 'brown',
  group: 'crop residue',
  moisture_pct: spread(12),
  n_pct: spread(0.6),
  c_n: spread(80),
  density_kg_l: spread(0.05),
  cautions: [],
  must_not_go_in: false,
  is_own: false,
} as unknown as Material

/** What a mix comes to, with nothing to complain of. */
export const sums = {
  c_n: 28,
  moisture_pct: 55,
  free_air_space_pct: 42,
  heap_volume_l: 1200,
  complaints: [],
} as unknown as MixSums

/** A heap of so many layers, so many of them laid. */
export function heap(planned = 3, laid = 0, changes: Partial<Heap> = {}): Heap {
  const step = (at: number): Heap['build']['steps'][number] => ({
    role: 'mix',
    cycle: at + 1,
    portions: [{ item: 0, amount: 1 }],
    litres: [70],
    water_l: 12,
    beside_l: 0,
    thickness_cm: 10,
    top_cm: 10 * (at + 1),
    planned: at < laid ? { portions: [{ item: 0, amount: 1 }], water_l: 12 } : null,
  })
  const part = {
    lot_id: 'lot-1',
    material: 'barley-straw',
    amount: planned,
    unit: 'measure',
    measure_id: 'barrow',
  }
  return {
    id: 'heap-1',
    head: `entry-${laid}`,
    batch_id: 'batch-1',
    name: 'Terrace heap',
    method: null,
    begun_at: '2026-03-14T08:00:00Z',
    changed_at: '2026-03-14T09:00:00Z',
    taken_at: null,
    laid,
    planned,
    height_cm: laid === planned ? 10 * laid : null,
    can_undo: laid > 0,
    done: [],
    heap: { shape: 'box', length_cm: 110, width_cm: 110, height_cm: 120 },
    items: [{ ...part, measure_litres: 70, own: {}, tests: [] } as Heap['items'][number]],
    build: {
      steps: Array.from({ length: planned }, (_, at) => step(at)),
      laid,
      height_cm: 10 * laid,
      end_height_cm: 10 * planned,
      rim_cm: 120,
      section_width_cm: 110,
      outline: [],
      vent: 'none',
      vents: [],
      windows: {} as Heap['build']['windows'],
      so_far: null,
      at_end: null,
      as_planned: null,
      anew: [],
      size: 'big-enough',
    },
    ...changes,
  }
}

export const batch: Batch = {
  id: 'batch-1',
  version: 2,
  created_at: '2026-03-14T08:00:00Z',
  updated_at: '2026-03-14T08:00:00Z',
  taken_at: null,
  name: 'Terrace heap',
  water_l: 36,
  heap: { shape: 'box', length_cm: 110, width_cm: 110, height_cm: 120 },
  method: null,
  build_on: null,
  starters: [],
  items: heap().items,
}

/** Answers what every page asks. */
export function serveFarm({ lots = [lot()], measures = [bucket, barrow] } = {}) {
  serve('GET /api/sites', { body: [site] })
  serve('GET /api/sites/site-1/lots', { body: lots })
  serve('GET /api/sites/site-1/measures', { body: measures })
  serve('GET /api/materials', { body: [straw] })
  const { id, name, kind, group, is_own } = straw
  serve('GET /api/materials/names', { body: [{ id, name, kind, group, particle: 'medium', is_own }] })
  serve('GET /api/methods', { body: [] })
  serve('GET /api/about', {
    body: { version: '0.1.0', now: '2026-03-14T08:00:00Z', today: '2026-03-14', demo: false },
  })
  const own = { moisture_pct: [0, 99.9], n_pct: [0, 47], c_n: [0, 2000], density_kg_l: [0.001, 5] }
  const limits = {
    own,
    amount: [0, 1_000_000],
    measure_l: [0, 20_000],
    measure_cm: [0, 1000],
    counted: [0, 1000],
    heaped: [0.25, 2],
    month: { mean_c: [-40, 45], swing_c: [0, 25], rain_mm: [0, 3000] },
    altitude_m: [-500, 6000],
    keeps_heat_l: 1000,
    step: { measures: 1, weight: 1, weight_of_much: 10, much_kg: 20, volume: 10 },
    name_letters: 80,
  } as unknown as Limits
  serve('GET /api/limits', { body: limits })
}
