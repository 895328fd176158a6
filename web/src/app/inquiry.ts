/** Something asked of somebody outside: nobody at the server waits for them, so it is looked at until they have answered. */
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'

type Inquiry = Schemas['InquiryOut']
const LOOKS_MS = [150, 300, 600, 1000]

/** What came of it. Refuses with what was wrong, at its field. */
export async function inquire(ask: (body: { uuid: string }) => Parameters<typeof answer<Inquiry>>[0]): Promise<Inquiry> {
  const uuid = newUuid()
  let asked = await write(() => ask({ uuid }))
  for (let look = 0; asked.under_way; look++) {
    await new Promise((passed) => setTimeout(passed, LOOKS_MS[Math.min(look, LOOKS_MS.length - 1)]))
    asked = await answer(api.GET('/api/outside/inquiries/{inquiry_id}', { params: { path: { inquiry_id: uuid } } }))
  }
  if (asked.trouble) throw new Refused(409, asked.trouble, asked.field, true)
  return asked
}
