/** Figures as they are typed, with a point or a comma. What is none is refused at its field, and never taken for nothing. */
import { Refused } from '@/api/client'

const FIGURE = /^[+-]?(\d+[.,]?\d*|[.,]\d+)$/
const THOUSANDS = /^[+-]?[1-9]\d{0,2},\d{3}$/

export function figure(text: string, field: string): number {
  const tidy = text
    .trim()
    .replace('−', '-')
    .replace(/\s(?=\d{3}(?!\d))/g, '')
  const refused = (message: string): Refused => new Refused(422, message, field, true)
  if (!FIGURE.test(tidy)) throw refused('must be a figure, such as 12 or 2.5')
  if (THOUSANDS.test(tidy)) throw refused(`“${text.trim()}” may be a thousands comma: write the figure without it`)
  return Number(tidy.replace(',', '.'))
}

/** None where nothing was typed. */
export const figureIfTyped = (text: string, field: string): number | null => (text.trim() ? figure(text, field) : null)

/** How many of something. */
export function whole(text: string, field: string): number {
  const many = figure(text, field)
  if (!Number.isInteger(many)) throw new Refused(422, 'must be a whole number', field, true)
  return many
}

export const wholeIfTyped = (text: string, field: string): number | null => (text.trim() ? whole(text, field) : null)
