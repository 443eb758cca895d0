// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { linesOf } from './lines'

function answer(...pieces: string[]): Response {
  const text = new TextEncoder()
  return new Response(
    new ReadableStream({
      start(to) {
        for (const piece of pieces) to.enqueue(text.encode(piece))
        to.close()
      },
    }),
  )
}

test('lines come whole, however they are cut on the way', async () => {
  const got: unknown[] = []
  for await (const line of linesOf(answer('{"a":1}\n{"a"', ':2}', '\n{"a":"½"}\n'))) got.push(line)
  expect(got).toEqual([{ a: 1 }, { a: 2 }, { a: '½' }])
})

test('a refusal is thrown as any other', async () => {
  const refused = new Response(JSON.stringify({ status: 422, title: '', detail: 'no', errors: [] }), {
    status: 422,
  })
  await expect(linesOf(refused).next()).rejects.toThrow('no')
})
