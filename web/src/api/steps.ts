/** What takes its time, told step by step: a line of JSON for each step, and one with what came of it. */
import { Refused, write, type Schemas } from './client'

export interface Step {
  what: string
  steps: number
  of: number
}
interface Said {
  done?: boolean
  error?: { field: string; message: string }
}

/** The last line, with what came of it. Raises Refused; also where the connection broke on the way. */
export async function followed<Last, Told = Step>(
  call: () => Promise<{ data?: unknown; error?: unknown; response: Response }>,
  told: (step: Told) => void,
): Promise<Last> {
  const body = await write<ReadableStream<Uint8Array<ArrayBuffer>>>(call as never)
  const reader = body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const part = await reader.read().catch(() => ({ done: true, value: undefined }))
    const lines = (rest + (part.value ?? '')).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines.filter(Boolean)) {
      const step = JSON.parse(line) as Said
      if (step.error) throw new Refused(422, step.error.message, step.error.field, true)
      if (step.done) return step as unknown as Last
      told(step as Told)
    }
    if (part.done) throw new Refused(0, 'The connection broke while it was worked on. Ask for it again.')
  }
}

/** A file that is taken line by line: the report of it. */
export const tableTaken = async (
  call: Parameters<typeof followed>[0],
  told: (step: Step) => void,
): Promise<Schemas['TableReportOut']> => (await followed<Step & { report: Schemas['TableReportOut'] }>(call, told)).report

/** How a form with a file in it is sent. */
export const asForm = (form: FormData): { body: never; bodySerializer: (body: unknown) => never } => ({
  body: form as never,
  bodySerializer: (body) => body as never,
})
