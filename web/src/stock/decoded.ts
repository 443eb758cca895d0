/**
 * The text of a file as spreadsheets save it: UTF-8, or UTF-16 with its mark in front.
 * None if it is neither; nothing in it is ever replaced in silence.
 */
export function decoded(bytes: ArrayBuffer): string | null {
  const [first, second] = new Uint8Array(bytes)
  const name =
    first === 0xff && second === 0xfe ? 'utf-16le' : first === 0xfe && second === 0xff ? 'utf-16be' : 'utf-8'
  try {
    return new TextDecoder(name, { fatal: true }).decode(bytes)
  } catch {
    return null
  }
}
