/** Working out a plan: told step by step, and kept by the server when it is done. */
import { api, Refused, type Schemas, write } from '@/api/client'

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
  const body = await write<ReadableStream<Uint8Array<ArrayBuffer>>>(
    () => api.POST('/api/supply/plans', { body: { uuid, pinned }, parseAs: 'stream' }) as never,
  )
  const reader = body.pipeThrough(new TextDecoderStream()).getReader()
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

interface Said extends Step {
  done?: boolean
  error?: { field: string; message: string }
}
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
