import { expect, test } from 'vitest'
import { decoded } from './decoded'

const bytes = (...list: number[]) => new Uint8Array(list).buffer

test('a file is read in whichever way a spreadsheet saved it', () => {
  const text = 'paja,ñ\n'
  const utf8 = new TextEncoder().encode(text)
  expect(decoded(utf8.buffer)).toBe(text)
  expect(decoded(bytes(0xef, 0xbb, 0xbf, ...utf8))).toBe(text)
  const wide = [...text].flatMap((letter) => [letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8])
  expect(decoded(bytes(0xff, 0xfe, ...wide))).toBe(text)
  const narrow = wide.map((_, at) => wide[at % 2 ? at - 1 : at + 1]!)
  expect(decoded(bytes(0xfe, 0xff, ...narrow))).toBe(text)
})

test('what is no text is told, and nothing in it replaced', () => {
  expect(decoded(bytes(0x70, 0x61, 0xef, 0x73))).toBe(null)
  expect(decoded(bytes(0xff, 0xfe, 0x70))).toBe(null)
})
