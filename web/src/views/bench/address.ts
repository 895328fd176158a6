/** What is typed at the bench, in the address and back: a link opens the same work. */
import type { Schemas } from '@/api/client'

export type Subject = Schemas['SubjectOut']
export type Texts = Record<string, string | string[][]>

/** `|` parts cells and `~` rows; in a cell they are written as codes. */
const pack = (cell: string): string => cell.replace(/[%|~]/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`)
const unpack = (cell: string): string =>
  cell.replace(/%(25|7c|7e)/g, (_, code: string) => String.fromCharCode(parseInt(code, 16)))

const trimmed = (row: string[]): string[] =>
  row.slice(
    0,
    row.reduce((last, cell, i) => (cell.trim() ? i + 1 : last), 0),
  )
export const filled = (rows: string[][]): string[][] => rows.map(trimmed).filter((row) => row.length)

export type Units = 'mm' | 'in'
const LENGTHS = ['length', 'signed', 'lengths', 'feeler']
const BARE =
  /(?<![\d.,/])(\d+(?:[.,]\d+)?|[.,]\d+)(?![\d.,/]|\s*-?\s*\d+\s*\/|\s*(?:mm|cm|in|inch|inches|thou|ft|foot|feet)\b|\s*["'′″])/gi

/** A text whose bare figures were typed in other units than its reader's: they carry theirs. */
export const carrying = (kind: string, text: string, unit: Units): string =>
  LENGTHS.includes(kind) ? text.replace(BARE, `$1${unit}`) : text

/** What a bare figure in this text is taken for; nothing where there is none, or it says so itself. */
export const takenFor = (kind: string, text: string, unit: Units): string =>
  LENGTHS.includes(kind) && (text.trim() ? text.search(BARE) >= 0 : kind !== 'feeler') ? unit : ''

/** u: what a bare figure means in this link, to whoever opens it. */
export function toQuery(subject: Subject, texts: Texts, units: Units): Record<string, string> {
  const query: Record<string, string> = units === 'in' ? { u: 'in' } : {}
  for (const field of subject.fields) {
    const text = texts[field.key] as string
    if (text !== field.start) query[field.key] = text
  }
  for (const table of subject.tables) {
    const rows = filled((texts[table.key] ?? []) as string[][])
    if (rows.length) query[table.key] = rows.map((row) => row.map(pack).join('|')).join('~')
  }
  return query
}

/** The texts of an address; what it does not name has its starting value. */
export function fromQuery(subject: Subject, query: Record<string, unknown>, units: Units): Texts {
  const texts = started(subject)
  const typedIn: Units = query.u === 'in' ? 'in' : 'mm'
  const mine = (kind: string, text: string): string => (typedIn === units ? text : carrying(kind, text, typedIn))
  for (const field of subject.fields)
    if (typeof query[field.key] === 'string') texts[field.key] = mine(field.kind, query[field.key] as string)
  for (const table of subject.tables) {
    const packed = query[table.key]
    if (typeof packed === 'string')
      texts[table.key] = packed.split('~').map((row) =>
        row
          .split('|')
          .map(unpack)
          .map((cell, i) => mine(table.columns[i]?.kind ?? '', cell)),
      )
  }
  return texts
}

/** Starting values alone: nothing in the tables, and nothing that is only an example. */
export const blank = (subject: Subject): Texts => ({
  ...Object.fromEntries(subject.fields.map((field) => [field.key, field.start])),
  ...Object.fromEntries(subject.tables.map((table) => [table.key, []])),
})

/** Starting values with the first example, so that there is something to see. */
export const started = (subject: Subject): Texts => ({ ...blank(subject), ...copied(subject.examples[0]?.texts ?? {}) })

export const copied = (texts: Texts): Texts =>
  Object.fromEntries(
    Object.entries(texts).map(([key, value]) => [key, typeof value === 'string' ? value : value.map((row) => [...row])]),
  )
