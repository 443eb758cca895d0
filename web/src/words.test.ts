import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import en from '@locales/en.json'

const HERE = new URL('.', import.meta.url).pathname

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

function find(key: string): unknown {
  return key.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], en)
}

describe('the words of the page', () => {
  it('are all there', () => {
    const asked = wordsAsked()
    expect(asked.length).toBeGreaterThan(60)
    expect(asked.filter(([, key]) => typeof find(key) !== 'string')).toEqual([])
  })
})
