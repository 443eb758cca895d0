import type { EntryKind, Tended } from '@/api/client'
import type { Quantity } from '@/words/units'

/** What can be written down of a heap, by a person. */
export type TendKind = Tended['kind']

interface Numbered {
  field: string
  as: 'number'
  quantity?: Quantity
  min: number
  max: number
  /** Whether it may be left out. */
  open?: boolean
}

interface Poured {
  field: string
  /** Water, in buckets where there is one. */
  as: 'poured'
}

interface Chosen {
  field: string
  as: 'choice' | 'choices'
  words: readonly string[]
  /** What is meant if nothing is said. */
  usual?: string
  open?: boolean
}

interface Worded {
  field: string
  as: 'text'
}

interface Listed {
  field: string
  as: 'items'
}

export type FormField = Numbered | Poured | Chosen | Worded | Listed

const PLACES = ['core', 'half-way', 'edge', 'air'] as const

/** The fields of each kind, in the order in which they are asked. One that is a single choice is written at a tap. */
export const FORMS: Record<TendKind, readonly FormField[]> = {
  stick: [{ field: 'feel', as: 'choice', words: ['cannot-hold', 'hot', 'warm', 'cool'] }],
  temperature: [
    { field: 'temp_c', as: 'number', quantity: 'temperature', min: -40, max: 110 },
    { field: 'place', as: 'choice', words: PLACES, usual: 'core' },
    { field: 'depth_cm', as: 'number', quantity: 'length', min: 0, max: 500, open: true },
  ],
  turn: [{ field: 'to', as: 'text' }],
  water: [
    { field: 'litres', as: 'poured' },
    { field: 'spread', as: 'choice', words: ['even', 'top'], usual: 'even' },
  ],
  squeeze: [{ field: 'feel', as: 'choice', words: ['dusty', 'damp', 'right', 'wet', 'sodden'] }],
  smell: [
    {
      field: 'smell',
      as: 'choices',
      words: ['earthy', 'none', 'ammonia', 'sour', 'rotten', 'musty', 'burnt'],
    },
  ],
  seen: [
    {
      field: 'signs',
      as: 'choices',
      words: [
        'steam',
        'white-threads',
        'ash-grey',
        'dry-patches',
        'matted',
        'liquid',
        'flies',
        'rodents',
        'scraps-on-top',
        'raw-outside',
        'sprouts',
        'worms',
        'mould',
        'dark-crumbly',
        'recognisable',
      ],
    },
  ],
  height: [{ field: 'height_cm', as: 'number', quantity: 'length', min: 1, max: 1000 }],
  add: [{ field: 'items', as: 'items' }],
  cover: [{ field: 'with', as: 'choice', words: ['roof', 'sheet', 'straw', 'soil'] }],
  uncover: [],
  rain: [
    { field: 'mm', as: 'number', quantity: 'rain', min: 0.1, max: 2000 },
    { field: 'hours', as: 'number', min: 0.5, max: 720, open: true },
  ],
  aerate: [{ field: 'how', as: 'choice', words: ['holes', 'fork', 'pipe'] }],
  move: [],
  worms: [{ field: 'kg', as: 'number', quantity: 'mass', min: 0.01, max: 1000, open: true }],
  feed: [{ field: 'items', as: 'items' }],
  liquid: [
    { field: 'litres', as: 'poured' },
    { field: 'to', as: 'text' },
  ],
  photo: [],
  note: [],
  'closed-bag': [
    {
      field: 'smell',
      as: 'choices',
      words: ['earthy', 'none', 'ammonia', 'sour', 'rotten', 'musty'],
    },
    { field: 'days', as: 'number', min: 0, max: 60, open: true },
  ],
  germination: [
    { field: 'sown', as: 'number', min: 5, max: 1000 },
    { field: 'up', as: 'number', min: 0, max: 1000 },
    { field: 'control_sown', as: 'number', min: 5, max: 1000 },
    { field: 'control_up', as: 'number', min: 0, max: 1000 },
  ],
  'bean-test': [{ field: 'grew', as: 'choice', words: ['well', 'stunted'] }],
}

/** What is written most often stands out; the rest behind one more tap. */
export const FIRST: readonly TendKind[] = ['stick', 'temperature', 'turn', 'water', 'squeeze']
export const OTHERS = (Object.keys(FORMS) as TendKind[]).filter((kind) => !FIRST.includes(kind))

/** Whether a kind is one choice, and done with it. */
export function isOneTap(kind: TendKind): boolean {
  const [only, ...more] = FORMS[kind]
  return more.length === 0 && only?.as === 'choice'
}

export const isTendKind = (kind: EntryKind): kind is TendKind => kind in FORMS

/** What was typed, by field. */
export type Typed = Record<string, unknown>

export const emptyOf = (kind: TendKind): Typed =>
  Object.fromEntries(
    FORMS[kind].map((of) => [
      of.field,
      of.as === 'choices' || of.as === 'items'
        ? []
        : of.as === 'choice'
          ? (of.usual ?? null)
          : of.as === 'text'
            ? ''
            : null,
    ]),
  )

/** The fields that still have to be said. */
export function missing(kind: TendKind, typed: Typed): string[] {
  return FORMS[kind]
    .filter((of) => {
      const value = typed[of.field]
      if (of.as === 'text') return false
      if (of.as === 'choices' || of.as === 'items') return !(value as unknown[]).length
      if (of.as === 'poured') return !(typeof value === 'number' && value > 0)
      return value === null && !('open' in of && of.open)
    })
    .map(({ field }) => field)
    .concat(kind === 'germination' ? beyond(typed) : [])
}

/** No more seeds come up than were sown. */
const beyond = (typed: Typed): string[] =>
  (
    [
      ['up', 'sown'],
      ['control_up', 'control_sown'],
    ] as const
  )
    .filter(([up, sown]) => Number(typed[up] ?? 0) > Number(typed[sown] ?? Infinity))
    .map(([up]) => up)

/** What is said, as it is sent. */
export function said(kind: TendKind, typed: Typed): Tended {
  const fields = FORMS[kind].flatMap((of): [string, unknown][] => {
    const value = typed[of.field]
    const isNothing = value === null || value === ''
    return isNothing ? [] : [[of.field, value]]
  })
  return { kind, ...Object.fromEntries(fields) } as unknown as Tended
}

/** What was said, to be put right. */
export const typedOf = (what: Tended): Typed => ({ ...emptyOf(what.kind), ...what, kind: undefined })

/** Nothing, and something beside it, is not said together. */
export function toggled(chosen: string[], word: string): string[] {
  if (chosen.includes(word)) return chosen.filter((one) => one !== word)
  return word === 'none' ? ['none'] : [...chosen.filter((one) => one !== 'none'), word]
}
