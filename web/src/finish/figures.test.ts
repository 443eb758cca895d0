import { expect, test } from 'vitest'
import { beside, figureRow, FIGURES } from './figures'

test('each figure has one row', () => {
  expect(new Set(FIGURES.map(({ figure }) => figure)).size).toBe(FIGURES.length)
  expect(figureRow('ec-ds-m').unit).toBe('dS/m')
})

test('what is told stands from nothing to the most of all, ranges too', () => {
  const rows = beside([
    {
      key: 'a',
      name: 'estimated',
      kind: 'estimated',
      figures: [{ figure: 'n-pct', value: 1.5, low: 1, high: 2 }],
    },
    {
      key: 'b',
      name: 'lab',
      kind: 'compost',
      figures: [
        { figure: 'n-pct', value: 1.8 },
        { figure: 'ph', value: 7 },
      ],
    },
  ])
  expect(rows.map(({ figure }) => figure)).toEqual(['n-pct', 'ph'])
  expect(rows[0]!.most).toBe(2)
  expect(rows[0]!.marks.map(({ at, from, to }) => [at, from, to])).toEqual([
    [0.75, 0.5, 1],
    [0.9, 0.9, 0.9],
  ])
  expect(beside([])).toEqual([])
})
