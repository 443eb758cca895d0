import { describe, expect, it } from 'vitest'
import type { PrepareAnswer } from '@/api/client'
import { agendaOf, dayAfter, daysBetween } from './agenda'

const starter = (chosen: boolean): PrepareAnswer['starters'][number] => ({
  id: 'farm-ferment',
  purpose: 'build',
  chosen,
  make: [20, 40],
  unit: 'litre',
  ingredients: [],
  timing: 'in-time',
  start_on: '2026-03-15',
  ready_on: '2026-03-22',
  use_by: '2026-04-01',
  tasks: [
    { step: 'fill', from: '2026-03-15', to: '2026-03-15' },
    { step: 'strain', from: '2026-03-22', to: '2026-03-22' },
  ],
})
const ANSWER: PrepareAnswer = {
  build_on: '2026-03-22',
  days: 8,
  starters: [starter(true)],
  needs: [
    { job: 'gloves', on: '2026-03-22', params: {} },
    { job: 'chop', on: '2026-03-21', item: 0, params: {} },
  ],
}

describe('the days before a heap is built', () => {
  it('stand in order, each with what is done on it', () => {
    const days = agendaOf(ANSWER, '2026-03-14')
    expect(days.map(({ on, todos }) => [on, todos.map(({ key }) => key)])).toEqual([
      ['2026-03-15', ['farm-ferment fill']],
      ['2026-03-21', ['chop 0']],
      ['2026-03-22', ['farm-ferment strain', 'gloves']],
    ])
  })

  it('leave out starters that were not taken', () => {
    expect(agendaOf({ ...ANSWER, starters: [starter(false)] }, '2026-03-14')).toHaveLength(2)
  })

  it('bring what is late to today', () => {
    const [first] = agendaOf(ANSWER, '2026-03-21')
    expect([first!.on, first!.todos.length]).toEqual(['2026-03-21', 2])
  })

  it('are counted over a change of month', () => {
    expect(daysBetween('2026-02-27', '2026-03-02')).toBe(3)
    expect(dayAfter('2026-02-27', 3)).toBe('2026-03-02')
  })
})
