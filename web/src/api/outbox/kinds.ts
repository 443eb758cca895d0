import type { Subject } from '@/api/keys'

type Method = 'POST' | 'PUT' | 'DELETE'

/** How something is sent, what of the farm it is about, and where it stands if it is a change of a record. */
interface Row {
  call: readonly [Method, string]
  about: Subject
  /** Where the record stands as it is now: the list that holds it, and under which name a change tells it. */
  now?: { list: string; field: string }
}

const LOTS = '/api/sites/{site}/lots'
const TESTS = '/api/lots/{lot}/tests'
const MEASURES = '/api/sites/{site}/measures'

/** Everything that may wait for a signal: all that is done to stock, and on build day. */
export const KINDS = {
  'lot-add': { call: ['POST', LOTS], about: 'lot' },
  'lot-change': { call: ['PUT', '/api/lots/{id}'], about: 'lot', now: { list: LOTS, field: 'lot' } },
  'lot-remove': { call: ['DELETE', '/api/lots/{id}'], about: 'lot' },
  'lot-restore': { call: ['POST', '/api/lots/{id}/restore'], about: 'lot' },
  'lot-happened': { call: ['POST', '/api/lots/{id}/history'], about: 'lot' },
  'lot-unhappened': { call: ['DELETE', '/api/lot-events/{id}'], about: 'lot' },
  'test-add': { call: ['POST', '/api/lots/{id}/tests'], about: 'lot' },
  'test-change': { call: ['PUT', '/api/tests/{id}'], about: 'lot', now: { list: TESTS, field: 'test' } },
  'test-remove': { call: ['DELETE', '/api/tests/{id}'], about: 'lot' },
  'test-restore': { call: ['POST', '/api/tests/{id}/restore'], about: 'lot' },
  'sorted-out-add': { call: ['POST', '/api/sites/{site}/sorted-out'], about: 'sorted-out' },
  'sorted-out-remove': { call: ['DELETE', '/api/sorted-out/{id}'], about: 'sorted-out' },
  'sorted-out-restore': { call: ['POST', '/api/sorted-out/{id}/restore'], about: 'sorted-out' },
  'measure-add': { call: ['POST', MEASURES], about: 'measure' },
  'measure-change': {
    call: ['PUT', '/api/measures/{id}'],
    about: 'measure',
    now: { list: MEASURES, field: 'measure' },
  },
  'measure-remove': { call: ['DELETE', '/api/measures/{id}'], about: 'measure' },
  'measure-restore': { call: ['POST', '/api/measures/{id}/restore'], about: 'measure' },
  'heap-begin': { call: ['POST', '/api/batches/{batch}/build'], about: 'heap' },
  'heap-lay': { call: ['POST', '/api/heaps/{id}/lay'], about: 'heap' },
  'heap-anew': { call: ['POST', '/api/heaps/{id}/anew'], about: 'heap' },
  'heap-end': { call: ['POST', '/api/heaps/{id}/end'], about: 'heap' },
  'heap-undo': { call: ['POST', '/api/heaps/{id}/undo'], about: 'heap' },
  'heap-take': { call: ['POST', '/api/heaps/{id}/take'], about: 'heap' },
  'heap-give-back': { call: ['POST', '/api/heaps/{id}/give-back'], about: 'heap' },
  'heap-remove': { call: ['DELETE', '/api/heaps/{id}'], about: 'heap' },
  'heap-tend': { call: ['POST', '/api/heaps/{id}/log'], about: 'heap' },
  'heap-take-back': { call: ['POST', '/api/heaps/{id}/log/{entry}/take-back'], about: 'heap' },
  'heap-bring-back': { call: ['POST', '/api/heaps/{id}/log/{entry}/bring-back'], about: 'heap' },
  'heap-restore': { call: ['POST', '/api/heaps/{id}/restore'], about: 'heap' },
} as const satisfies Record<string, Row>

export type ActKind = keyof typeof KINDS

/** The row of a kind, whatever it has. */
export const rowOf = (kind: ActKind): Row => KINDS[kind]
