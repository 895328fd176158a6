import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { expect, it, vi } from 'vitest'
import { ref } from 'vue'
import NoteForm from './NoteForm.vue'

const { stored, sent } = vi.hoisted(() => ({ stored: [] as ((uuid: string) => void)[], sent: [] as string[] }))
vi.mock('@/api/photos', () => ({
  storePhoto: () => new Promise<string>((done) => stored.push(done)),
  sendPhoto: (uuid: string, _path: string, { note_id }: { note_id: string }) => sent.push(`picture ${uuid} of ${note_id}`),
}))
vi.mock('@/api/usePost', () => ({
  usePost: () => (_path: string, _params: unknown, body: { uuid: string; text: string }) => {
    sent.push(`note ${body.uuid}: ${body.text}`)
    return Promise.resolve([])
  },
}))
vi.mock('@/api/useOnItsWay', () => ({
  useOnItsWay: () => ({ waiting: ref([]) }),
  answeredOrKept: (_: string, it: unknown) => it,
}))

it('sends a picture with the note it was chosen for, though Save is pressed while it is still being stored', async () => {
  const page = mount(NoteForm, { props: { machine: 1, stations: [] }, global: { plugins: [PrimeVue, createPinia()] } })
  await page.get('textarea').setValue('Row 2 squealed')
  const file = page.get('input[type=file]')
  Object.defineProperty(file.element, 'files', { value: [new File(['x'], 'squeal.jpg')] })
  await file.trigger('change')
  await page.get('form').trigger('submit')
  await flushPromises()
  expect(sent).toEqual([])
  stored[0]!('b')
  await flushPromises()
  const [note, picture] = sent
  expect(note).toMatch(/^note .+: Row 2 squealed$/)
  expect(picture).toBe(`picture b of ${note!.split(' ')[1]!.slice(0, -1)}`)
  expect(page.text()).not.toContain('squeal.jpg')
})
