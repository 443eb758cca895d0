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

/** A sensible heap of a shape: what holds this mix, else as the method usually is. */
export function reshaped(shape: ShapeWord, sensible: HeapShape[], method: Method | null = null): HeapShape {
  const by = (one: HeapShape) => one.shape === shape
  return sensible.find(by) ?? method?.usual.find(by) ?? { ...FIRST[shape], shape }
}

/** The heap for a method: as it is if the method is built so, else what holds the mix in the method's first shape. */
export function heapFor(method: Method | null, heap: HeapShape, sensible: HeapShape[] = []): HeapShape {
  if (!method || method.shapes.includes(heap.shape)) return heap
  const [usual] = method.usual
  if (!usual) return heap
  return sensible.find((one) => one.shape === usual.shape) ?? usual
}

/** Sides of a shape while nothing is known of a mix: about a cubic metre; drums come in sizes of their own. */
const FIRST: Record<ShapeWord, Omit<HeapShape, 'shape'>> = {
  box: { width_cm: 110, length_cm: 110, height_cm: 120 },
  ring: { diameter_cm: 120, height_cm: 120 },
  pile: { width_cm: 150, length_cm: 150, top_cm: 90, height_cm: 120 },
  windrow: { width_cm: 200, length_cm: 200, height_cm: 100 },
  drum: { diameter_cm: 57, height_cm: 85 },
  'lying-drum': { diameter_cm: 57, length_cm: 85 },
  tower: { diameter_cm: 120, height_cm: 170, columns: 4 },
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
