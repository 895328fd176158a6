/** Working out a plan: told step by step, and kept by the server when it is done. */
import { csrfToken, Refused, renewCsrf, type Schemas } from '@/api/client'

export interface Step {
  what: string
  steps: number
  of: number
}
export type Kind = Schemas['Plan']['kind']

export type PlanLine = Schemas['PlanLine']
export type OnePlan = Schemas['Plan']

/** Ask for a plan under a UUID. Raises Refused. */
export async function workOut(uuid: string, pinned: Schemas['PinIn'][], told: (step: Step) => void): Promise<void> {
  if (!csrfToken()) await renewCsrf()
  let response: Response
  try {
    response = await fetch('/api/supply/plans', { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() }, body: JSON.stringify({ uuid, pinned }) })
  } catch {
    throw new Refused(0, 'No connection to the server.')
  }
  if (!response.ok || !response.body) {
    const error = ((await response.json().catch(() => ({}))) as { error?: { message: string; field: string } }).error
    throw new Refused(response.status, error?.message ?? 'The server could not answer.', error?.field ?? '', !!error)
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  let done = false
  for (;;) {
    const part = await reader.read().catch(() => ({ done: true, value: undefined }))
    const lines = (rest + (part.value ?? '')).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines.filter(Boolean)) done = said(JSON.parse(line) as Said, told) || done
    if (part.done) break
  }
  if (!done) throw new Refused(0, 'The connection broke while the plan was worked out.')
}

interface Said extends Step { done?: boolean; error?: { field: string; message: string } }
function said(step: Said, told: (step: Step) => void): boolean {
  if (step.error) throw new Refused(422, step.error.message, step.error.field, true)
  if (step.done) return true
  told(step)
  return false
}

export function weekday(day: string): string {
  return new Date(`${day.slice(0, 10)}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
}
export const time = (at: string): string => at.slice(11, 16)
