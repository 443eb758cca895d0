/** Numbers as a person would say them. The exact figure stands in the working. */

/** Made once for each way of saying: making one takes far longer than using it, and a page says hundreds. */
function kept<F, O extends object>(make: (locale: string, options: O) => F) {
  const made = new Map<string, F>()
  return (locale: string, options: O): F => {
    const name = `${locale} ${JSON.stringify(options)}`
    const known = made.get(name) ?? make(locale, options)
    made.set(name, known)
    return known
  }
}
const numbers = kept((locale, options: Intl.NumberFormatOptions) => new Intl.NumberFormat(locale, options))
const dates = kept((locale, options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(locale, options))

const PARTS: [number, string][] = [
  [0, ''],
  [1 / 4, '¼'],
  [1 / 3, '⅓'],
  [1 / 2, '½'],
  [2 / 3, '⅔'],
  [3 / 4, '¾'],
]

/** Whole measures and handy parts of them: 2½, ¼, 18. Other amounts with one decimal. */
export function sayCount(count: number, locale: string): string {
  const sign = count < 0 ? '−' : ''
  const whole = Math.floor(Math.abs(count) + 1e-6)
  const rest = Math.abs(count) - whole
  const part = PARTS.find(([value]) => Math.abs(value - rest) < 0.02)
  if (part && whole < 1000) return `${sign}${whole > 0 || part[1] === '' ? whole : ''}${part[1]}`
  return numbers(locale, { maximumFractionDigits: 1 }).format(count)
}

/** Whether a count is one that a person fills: whole, or with a handy part, and not less than a quarter. */
export function isHandy(count: number): boolean {
  const rest = count - Math.floor(count + 1e-6)
  return count >= 0.24 && PARTS.some(([value]) => Math.abs(value - rest) < 0.02)
}

/** Kilograms or litres: one decimal below ten, whole above. */
export function sayAmount(amount: number, locale: string): string {
  const digits = Math.abs(amount) < 9.95 ? 1 : 0
  const near = Math.abs(amount) < 0.05 ? 0 : amount
  return numbers(locale, { maximumFractionDigits: digits }).format(near)
}

/** A volume in litres as cubic metres with one decimal, or two when small. */
export function sayCubic(litres: number, locale: string): string {
  const digits = litres < 100 ? 2 : 1
  return numbers(locale, {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  }).format(litres / 1000)
}

/** A plain whole number. */
export function sayWhole(value: number, locale: string): string {
  // A hair below nothing is nothing, and has no sign.
  return numbers(locale, { maximumFractionDigits: 0 }).format(Math.round(value) || 0)
}

/** A whole number, or with a decimal where it lies outside of edges that it would else be said as. */
export function sayAgainst(value: number, [low, high]: readonly [number, number], locale: string): string {
  const rounded = Math.round(value)
  const seemsIn = (value < low && rounded >= Math.round(low)) || (value > high && rounded <= Math.round(high))
  return numbers(locale, { maximumFractionDigits: seemsIn ? 1 : 0 }).format(value)
}

/** A number in a working: four significant digits, as on a board. */
export function sayExact(value: number, locale: string): string {
  const magnitude = Math.abs(value)
  if (magnitude >= 1000) return numbers(locale, { maximumFractionDigits: 0 }).format(value)
  return numbers(locale, { maximumSignificantDigits: 4 }).format(value)
}

/** A day, or the day of a moment, as "8 Mar 2026". */
export function sayDate(text: string, locale: string): string {
  const isDay = text.length === 10
  const date = new Date(isDay ? `${text}T12:00:00Z` : text)
  return dates(locale, {
    dateStyle: 'medium',
    ...(isDay ? { timeZone: 'UTC' } : {}),
  }).format(date)
}

/** A moment, as "8 Mar 2026, 14:05". */
export function sayTime(text: string, locale: string): string {
  return dates(locale, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(text))
}

/** Money to the hundredth, as it is paid. */
export function sayMoney(value: number, locale: string): string {
  return numbers(locale, { minimumFractionDigits: 2, maximumFractionDigits: 2 }).format(value)
}
