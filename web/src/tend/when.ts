/** A moment as a field of a browser writes it, by the clock of whoever looks: "2026-03-14T08:05". */
export function localOf(at: string): string {
  const date = new Date(at)
  const two = (value: number) => String(value).padStart(2, '0')
  const day = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`
  return `${day}T${two(date.getHours())}:${two(date.getMinutes())}`
}

/** The moment that such a field means; none if it means none. */
export function atOf(local: string): string | null {
  const date = new Date(local)
  return Number.isNaN(date.getTime()) ? null : date.toISOString()
}

/** The time now: that of the device, or of a farm whose clock stands still. */
export const nowOf = (about: { now: string; stands_still: boolean } | undefined): string =>
  about?.stands_still ? about.now : new Date().toISOString()
