import { describe, expect, it } from 'vitest'
import { ratioRange, readRule, type RuleWords } from './thumb'

const words: RuleWords = {
  weight: ['by weight', 'kg'],
  volume: ['by volume', 'buckets'],
  filler: ['parts', 'part', 'of', 'to', 'and'],
  numbers: ['one', 'two', 'three'],
}
const read = (text: string) => readRule(text, words)

describe('a rule of thumb', () => {
  it('is read as people say it', () => {
    expect(read('2 brown : 1 green by volume')).toEqual({
      by: 'volume',
      parts: [
        { parts: 2, word: 'brown' },
        { parts: 1, word: 'green' },
      ],
    })
    expect(read('3:1 by weight')).toEqual({
      by: 'weight',
      parts: [
        { parts: 3, word: '' },
        { parts: 1, word: '' },
      ],
    })
    expect(read('50/30/20 %')?.parts.map(({ parts }) => parts)).toEqual([50, 30, 20])
    expect(read('50 % straw, 30 % sheep manure and 20 % green weeds')?.parts).toEqual([
      { parts: 50, word: 'straw' },
      { parts: 30, word: 'sheep manure' },
      { parts: 20, word: 'green weeds' },
    ])
    expect(read('Two parts of leaves to one part of goat manure')?.parts).toEqual([
      { parts: 2, word: 'leaves' },
      { parts: 1, word: 'goat manure' },
    ])
    expect(read('1,5 straw + 1 dung')?.parts[0]).toEqual({ parts: 1.5, word: 'straw' })
    expect(read('3 kg straw : 1 kg manure')).toEqual({
      by: 'weight',
      parts: [
        { parts: 3, word: 'straw' },
        { parts: 1, word: 'manure' },
      ],
    })
  })

  it('without a number is none', () => {
    expect(read('')).toBeNull()
    expect(read('some brown and some green')).toBeNull()
    expect(read('0 : 0')).toBeNull()
  })

  it('is drawn with all its ratios in view', () => {
    const [low, high] = ratioRange([16, 92, Number.NaN], [25, 30])
    expect(low).toBeLessThan(16)
    expect(high).toBeGreaterThan(92)
  })
})
