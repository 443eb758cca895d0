/** Which marks a person's locale puts between thousands and before decimals. */
interface Marks {
  group: string
  decimal: string
}

function marksOf(locale: string): Marks {
  const parts = new Intl.NumberFormat(locale).formatToParts(1_234_567.5)
  const of = (type: string) => parts.find((part) => part.type === type)?.value ?? ''
  return { group: of('group'), decimal: of('decimal') }
}

const PARTS: Record<string, number> = { '¼': 0.25, '½': 0.5, '¾': 0.75, '⅓': 1 / 3, '⅔': 2 / 3 }

/** What stands between thousands and is never a decimal mark. */
const SPACE = /[\s\u00a0\u202f'’]/
const IN_THOUSANDS = /^-?\d{1,3}([\s\u00a0\u202f'’]\d{3})+([.,]\d*)?$/

/**
 * A number as a person types it: with a comma or a point, in thousands, as a fraction such as
 * 1/2, 2½ or 2 1/2. Null if it is none, or nothing was typed.
 *
 * A single mark with three digits behind it is what the person's locale takes it for; with
 * any other number of digits it is the decimal mark, whichever it is.
 */
export function readNumber(typed: string, locale: string): number | null {
  const text = typed.trim().replace('−', '-')
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*[/⁄]\s*([1-9]\d*)$/.exec(text)
  if (fraction) return Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3])
  const part = PARTS[text.slice(-1)]
  if (part !== undefined) {
    const whole = text.slice(0, -1).trim()
    const number = whole === '' ? 0 : readNumber(whole, locale)
    return number === null || !Number.isInteger(number) ? null : number + part
  }
  if (SPACE.test(text) && !IN_THOUSANDS.test(text)) return null
  return plain(text.replace(new RegExp(SPACE, 'g'), ''), locale)
}

/** A number of digits and marks alone. */
function plain(text: string, locale: string): number | null {
  if (!/^-?[\d.,]*\d[\d.,]*$/.test(text)) return null
  const marks = text.replace(/[-\d]/g, '')
  const [first, last] = [marks.at(0), marks.at(-1)]
  if (!first) return Number(text)
  const isGrouped = (by: string, digits: string) =>
    new RegExp(`^-?[1-9]\\d{0,2}(\\${by}\\d{3})+$`).test(digits)
  if (first !== last) {
    // 1,234.5 and 1.234,5: the last mark is the decimal one, once, behind whole thousands.
    const [whole, ...rest] = text.split(last!)
    if (rest.length !== 1 || !isGrouped(first, whole!)) return null
    return Number(`${whole!.replaceAll(first, '')}.${rest[0]}`)
  }
  const isThousands = isGrouped(first, text) && (marks.length > 1 || marksOf(locale).group === first)
  if (isThousands) return Number(text.replaceAll(first, ''))
  return marks.length === 1 ? Number(text.replace(first, '.')) : null
}

/** A number as it stands in a field: plain, with the decimal mark of the locale. */
export function writeNumber(value: number | null | undefined, digits: number, locale: string): string {
  if (value === null || value === undefined) return ''
  return new Intl.NumberFormat(locale, { maximumFractionDigits: digits, useGrouping: false }).format(value)
}
