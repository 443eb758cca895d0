/**
 * From figures to places in a drawing. Nothing but the mapping is needed anywhere: a library of scales
 * would bring colours, dates and number formats to the first page.
 */
export type Span = readonly [number, number]

const scale =
  (way: (value: number) => number) =>
  ([low, high]: Span, [from, to]: Span) =>
  (value: number): number =>
    from + ((way(value) - way(low)) / (way(high) - way(low))) * (to - from)

/** Equal steps for equal differences. */
export const linear = scale((value) => value)
/** Equal steps for equal ratios; of figures above zero. */
export const logarithmic = scale(Math.log)
/** Finer at the beginning, coarser later; of figures from zero. */
export const rooted = scale(Math.sqrt)
