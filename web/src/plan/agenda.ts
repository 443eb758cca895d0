import type { PrepareAnswer, PrepareNeed, StarterPlan } from '@/api/client'

/** Something to be done on a day. */
export interface Todo {
  key: string
  starter: StarterPlan | null
  task: StarterPlan['tasks'][number] | null
  need: PrepareNeed | null
}

export interface Day {
  /** As 2026-03-22. */
  on: string
  todos: Todo[]
}

/** Everything to be done before a heap is built, day by day: what was to be done before today stands on today. */
export function agendaOf({ starters, needs }: PrepareAnswer, today: string): Day[] {
  const days = new Map<string, Todo[]>()
  const put = (on: string, todo: Todo) => {
    const day = on < today ? today : on
    days.set(day, [...(days.get(day) ?? []), todo])
  }
  for (const starter of starters.filter(({ chosen }) => chosen)) {
    for (const task of starter.tasks) {
      put(task.from, { key: `${starter.id} ${task.step}`, starter, task, need: null })
    }
  }
  for (const need of needs) {
    put(need.on, { key: `${need.job} ${need.item ?? ''}`.trim(), starter: null, task: null, need })
  }
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([on, todos]) => ({ on, todos }))
}

/** Days from one day of the calendar to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / 86_400_000)
}

/** The day so many days after one. */
export function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)
}
