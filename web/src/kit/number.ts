/**
 * A number as a person types it: with a comma or a point, with spaces, as a
 * fraction such as 1/2 or 2½. Null if it is none, or nothing was typed.
 */
export function readNumber(typed: string): number | null {
  const text = typed.replace(/[\s\u00a0\u202f']/g, '').replace('−', '-')
  const part = PARTS[text.slice(-1)]
  if (part !== undefined) {
    const whole = text.slice(0, -1)
    const number = whole === '' ? 0 : readNumber(whole)
    return number === null ? null : number + part
  }
  const fraction = /^(\d+)\/([1-9]\d*)$/.exec(text)
  if (fraction) return Number(fraction[1]) / Number(fraction[2])
  // One mark is the decimal mark, whichever it is; figures here are never grouped.
  if (!/^-?\d*[.,]?\d*$/.test(text) || !/\d/.test(text)) return null
  return Number(text.replace(',', '.'))
}

const PARTS: Record<string, number> = { '¼': 0.25, '½': 0.5, '¾': 0.75, '⅓': 1 / 3, '⅔': 2 / 3 }

/** A number as it stands in a field: plain, with the decimal mark of the locale. */
export function writeNumber(value: number | null | undefined, digits: number, locale: string): string {
  if (value === null || value === undefined) return ''
  return new Intl.NumberFormat(locale, { maximumFractionDigits: digits, useGrouping: false }).format(value)
}
