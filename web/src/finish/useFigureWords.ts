import type { FigureTold, LabFigure } from '@/api/client'
import { useSay } from '@/words/useSay'
import { figureRow } from './figures'

/** Figures of compost and soil in words. */
export function useFigureWords() {
  const say = useSay()
  const { t } = say
  const number = (value: number, digits: number) => say.exact(Number(value.toFixed(digits)))

  function valueOf(figure: LabFigure, value: number): string {
    const { unit, digits } = figureRow(figure)
    return `${number(value, digits)}${unit ? ` ${unit}` : ''}`
  }
  const nameOf = (figure: LabFigure) => t(`lab.figure.${figure}`)
  const rangeOf = ({ figure, low, high }: FigureTold) =>
    low == null || high == null
      ? ''
      : t('lab.range', {
          low: number(low, figureRow(figure).digits),
          high: number(high, figureRow(figure).digits),
        })
  const fromOf = ({ from, made_on }: FigureTold) =>
    t(`lab.from.${from}`, { day: made_on ? say.day(made_on) : '' })

  return { nameOf, valueOf, rangeOf, fromOf }
}
