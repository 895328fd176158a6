import { flushPromises, mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { createPinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import OwnCauseForm from './OwnCauseForm.vue'

const post = vi.fn(() => Promise.resolve({}))
vi.mock('@/api/usePost', () => ({ usePost: () => post }))

beforeEach(() => {
  localStorage.clear()
  post.mockClear()
})
const form = () =>
  mount(OwnCauseForm, {
    props: {
      found: {
        kinds: [{ family: 'planter', checks: [{ key: 'chain', name: 'Chain' }] }],
        postures: ['up'],
        machine: { id: 1, name: 'D' },
      },
      symptom: { key: 'squeal', family: 'planter', name: 'Squeals' },
      name: 'Dry chain',
    } as never,
    global: { plugins: [PrimeVue, createPinia()] },
  })

it('says at the field that minutes are no figure, and sends nothing', async () => {
  const screen = form()
  await screen.get('input[inputmode=decimal]').setValue('a few')
  await screen.get('form').trigger('submit')
  await flushPromises()
  expect(screen.get('[role=alert]').text()).toContain('Must be a figure')
  expect(post).not.toHaveBeenCalled()
})

it('asks for no minutes where a check shows it, whatever was typed before', async () => {
  const screen = form()
  await screen.get('input[inputmode=decimal]').setValue('')
  await screen.get('select[aria-label="Shown by"]').setValue('chain')
  await screen.get('form').trigger('submit')
  await flushPromises()
  expect(screen.find('[role=alert]').exists()).toBe(false)
  expect(post).toHaveBeenCalledOnce()
})
