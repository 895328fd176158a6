import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { focus } from './focus'
import AskOnce from './AskOnce.vue'

const asked = (): ReturnType<typeof mount> =>
  mount(AskOnce, {
    props: { label: 'Send', question: 'This sends it now.', yes: 'Send it' },
    global: { plugins: [PrimeVue], directives: { focus } },
    attachTo: document.body,
  })

describe('what cannot be undone is asked about once', () => {
  beforeEach(() => vi.useFakeTimers({ toFake: ['performance'] }))

  it('says what will happen before it does', async () => {
    const box = asked()
    await box.get('button').trigger('click')
    expect(box.text()).toContain('This sends it now.')
    expect(box.emitted('yes')).toBeUndefined()
    vi.advanceTimersByTime(600)
    await box.get('form').trigger('submit')
    expect(box.emitted('yes')).toHaveLength(1)
  })

  it('takes no double click for an answer', async () => {
    const box = asked()
    await box.get('button').trigger('click')
    await box.get('form').trigger('submit')
    expect(box.emitted('yes')).toBeUndefined()
    expect(box.text()).toContain('This sends it now.')
  })

  it('is left by its second button, which Esc presses', async () => {
    const box = asked()
    await box.get('button').trigger('click')
    await box.get('[data-out]').trigger('click')
    expect(box.find('form').exists()).toBe(false)
    expect(box.emitted('yes')).toBeUndefined()
  })
})
