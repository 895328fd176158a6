import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { nextTick } from 'vue'
import { expect, it } from 'vitest'
import WholeNumber from './WholeNumber.vue'

async function typed(text: string, props: { optional?: boolean } = {}): Promise<unknown> {
  const field = mount(WholeNumber, { props: { modelValue: 12, ...props }, global: { plugins: [PrimeVue] } })
  await field.find('input').setValue(text)
  expect(field.find('input').element.value).toBe(text)
  return field.emitted('update:modelValue')?.at(-1)?.[0]
}

it('is a number, with room around it or not', async () => {
  expect([await typed('8'), await typed(' 240 ')]).toEqual([8, 240])
})

it('is what was typed where that is no whole number, for the server to refuse', async () => {
  expect([await typed('1.5'), await typed('about 8'), await typed('-2'), await typed('')]).toEqual(['1.5', 'about 8', '-2', ''])
})

it('is none where it may be left empty', async () => {
  expect(await typed('  ', { optional: true })).toBeNull()
})

it('leaves in the hand what is being typed, and shows what comes from elsewhere', async () => {
  const field = mount(WholeNumber, { props: { modelValue: 8 as number | null }, global: { plugins: [PrimeVue] } })
  const input = field.find('input')
  await input.setValue('008')
  await field.setProps({ modelValue: 8 })
  expect(input.element.value).toBe('008')
  await input.setValue('')
  await field.setProps({ modelValue: '' as unknown as number })
  expect(input.element.value).toBe('')
  await field.setProps({ modelValue: 16 })
  await nextTick()
  expect([input.element.value, field.emitted('update:modelValue')?.at(-1)]).toEqual(['16', ['']])
})
