import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { describe, expect, it } from 'vitest'
import en from '@locales/en.json'
import { FIRST_WORDS, unbroken } from './i18n'

const HERE = new URL('..', import.meta.url).pathname

function wordsAsked(): [string, string][] {
  const files = readdirSync(HERE, { recursive: true, encoding: 'utf8' })
  return files
    .filter((file) => /\.(vue|ts)$/.test(file) && !file.endsWith('.test.ts') && !file.endsWith('.d.ts'))
    .flatMap((file) =>
      [...readFileSync(`${HERE}/${file}`, 'utf8').matchAll(/\bt\(\s*'([\w.-]+)'/g)].map(
        (match): [string, string] => [file, match[1]!],
      ),
    )
}

/** The files that a page is made of; what is drawn later brings all words. */
function filesOf(...pages: string[]): string[] {
  const found = new Set<string>()
  const waiting = pages.map((page) => `${HERE}${page}`)
  for (let file = waiting.pop(); file; file = waiting.pop()) {
    // The router knows every page.
    if (found.has(file) || file.endsWith('router.ts') || file.endsWith('i18n.ts')) continue
    found.add(file)
    for (const [, name] of readFileSync(file, 'utf8').matchAll(/(?:from |import )'([@.][^']+)'/g)) {
      const path = name!.startsWith('@/') ? `${HERE}${name!.slice(2)}` : resolve(dirname(file), name!)
      const real = ['', '.ts', '.vue']
        .map((end) => path + end)
        .find((one) => existsSync(one) && statSync(one).isFile())
      if (real && /\.(ts|vue)$/.test(real)) waiting.push(real)
    }
  }
  return [...found]
}

function find(key: string): unknown {
  return key.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], en)
}

describe('the words of the page', () => {
  it('are all there', () => {
    const asked = wordsAsked()
    expect(asked.length).toBeGreaterThan(60)
    expect(asked.filter(([, key]) => typeof find(key) !== 'string')).toEqual([])
  })

  it('of the bench come with it', () => {
    const files = filesOf('App.vue', 'mix/BenchPage.vue')
    expect(files.length).toBeGreaterThan(50)
    const asked = files.flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/\bt\(\s*(?:[^'"`()]*\?\s*)?['`]([a-zA-Z]+)\./g)].map(
        (match) => match[1]!,
      ),
    )
    expect(asked).toContain('verdict')
    expect([...new Set(asked)].filter((group) => group in en).sort()).toEqual([...FIRST_WORDS].sort())
  })
})

it('keeps a number and its sign on one line, and lets all else break', () => {
  expect(unbroken('C:N 34 : 1, 55 % water, 112 cm high')).toBe(
    'C:N 34\u00a0:\u00a01, 55\u00a0% water, 112\u00a0cm high',
  )
  expect(unbroken('2 more barrows, 3 Layers, day 4 large')).toBe('2 more barrows, 3 Layers, day 4 large')
})
