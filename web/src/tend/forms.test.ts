import { describe, expect, it } from 'vitest'
import { emptyOf, FORMS, isOneTap, missing, OTHERS, said, toggled, typedOf, type TendKind } from './forms'

describe('seeds that came up', () => {
  it('are no more than were sown', () => {
    const typed = { sown: 20, up: 21, control_sown: 20, control_up: 18 }
    expect(missing('germination', typed)).toEqual(['up'])
    expect(missing('germination', { ...typed, up: 20 })).toEqual([])
    expect(missing('germination', { ...typed, up: null })).toEqual(['up'])
  })
})

describe('what is asked of each kind', () => {
  it('is said once all of it that must be is', () => {
    expect(missing('temperature', emptyOf('temperature'))).toEqual(['temp_c'])
    expect(said('temperature', { ...emptyOf('temperature'), temp_c: 57 })).toEqual({
      kind: 'temperature',
      temp_c: 57,
      place: 'core',
    })
    expect(missing('uncover', emptyOf('uncover'))).toEqual([])
    expect(missing('water', { ...emptyOf('water'), litres: 0 })).toEqual(['litres'])
    expect(missing('seen', emptyOf('seen'))).toEqual(['signs'])
    expect(said('turn', emptyOf('turn'))).toEqual({ kind: 'turn' })
  })

  it('is one tap where it is one choice', () => {
    const oneTap = (Object.keys(FORMS) as TendKind[]).filter(isOneTap)
    expect(oneTap).toEqual(['stick', 'squeeze', 'cover', 'aerate', 'bean-test'])
    expect(OTHERS).not.toContain('stick')
  })

  it('comes back as it was said', () => {
    const what = { kind: 'smell', smell: ['sour', 'rotten'] } as const
    expect(said('smell', typedOf({ ...what, smell: [...what.smell] }))).toEqual(what)
  })

  it('says nothing or something, not both', () => {
    expect(toggled(['sour'], 'none')).toEqual(['none'])
    expect(toggled(['none'], 'musty')).toEqual(['musty'])
    expect(toggled(['sour', 'musty'], 'sour')).toEqual(['musty'])
  })
})
