import type { HeapShape, Method } from '@/api/client'

/** The sides measured on each shape, in the order in which they are asked for. */
export const SIDES = {
  box: ['width_cm', 'length_cm', 'height_cm'],
  ring: ['diameter_cm', 'height_cm'],
  pile: ['width_cm', 'length_cm', 'top_cm', 'height_cm'],
  windrow: ['width_cm', 'length_cm', 'height_cm'],
  drum: ['diameter_cm', 'height_cm'],
  'lying-drum': ['diameter_cm', 'length_cm'],
  tower: ['diameter_cm', 'height_cm', 'columns'],
} as const

export type ShapeWord = keyof typeof SIDES
export type Side = (typeof SIDES)[ShapeWord][number]
export const SHAPES = Object.keys(SIDES) as ShapeWord[]

/** The sides of a heap, in order; none of a shape that this page does not know. */
export function sidesOf(heap: HeapShape): { side: Side; value: number }[] {
  return (SIDES[heap.shape as ShapeWord] ?? []).map((side) => ({ side, value: heap[side] ?? 0 }))
}

/** A drum of about 200 L inside. */
const DRUM = { diameter_cm: 57, height_cm: 85 }

/**
 * The same heap in another shape: as wide and as high as it was, so far as the
 * shape has such a side; drums and towers come in sizes of their own.
 */
export function reshaped(from: HeapShape, shape: ShapeWord, method: Method | null = null): HeapShape {
  const usual = method?.usual.find((one) => one.shape === shape)
  if (usual) return usual
  const across = from.width_cm ?? from.diameter_cm ?? 110
  const height = from.height_cm ?? from.diameter_cm ?? 120
  const all: Record<Side, number> = {
    width_cm: across,
    length_cm: from.length_cm ?? across,
    diameter_cm: across,
    height_cm: height,
    top_cm: Math.round(across * 0.6),
    columns: 4,
  }
  if (shape === 'drum') return { shape, ...DRUM }
  if (shape === 'lying-drum') return { shape, diameter_cm: DRUM.diameter_cm, length_cm: DRUM.height_cm }
  if (shape === 'tower') return { shape, diameter_cm: 120, height_cm: 170, columns: 4 }
  return { shape, ...Object.fromEntries(SIDES[shape].map((side) => [side, all[side]])) }
}

/** The heap for a method: as it is if the method is built so, else as the method usually is. */
export function heapFor(method: Method | null, heap: HeapShape): HeapShape {
  if (!method || method.shapes.includes(heap.shape)) return heap
  return method.usual[0] ?? heap
}

/** A glyph of each shape in a box of 36 by 26, standing on its ground. */
export const GLYPHS: Record<ShapeWord, string> = {
  box: 'M6 4V24H30V4M6 10H30',
  ring: 'M8 7V24H28V7M8 7a10 3 0 0 1 20 0a10 3 0 0 1 -20 0M8 13H28M8 18H28',
  pile: 'M3 24L11 7H25L33 24Z',
  windrow: 'M3 24Q18 -6 33 24ZM18 9L26 5Q32 10 35 18',
  drum: 'M11 4V24H25V4M11 4a7 2 0 0 1 14 0a7 2 0 0 1 -14 0M11 11H25M11 17H25',
  'lying-drum': 'M18 2a10 10 0 0 1 0 20a10 10 0 0 1 0 -20M8 12H28M10 24L14 20M26 24L22 20',
  tower: 'M8 3V22H28V3M5 22H31M5 24H31M14 1V22M22 1V22',
}
