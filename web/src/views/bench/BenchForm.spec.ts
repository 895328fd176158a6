import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { describe, expect, it } from 'vitest'
import { reactive, ref } from 'vue'
import BenchForm from './BenchForm.vue'
import type { Subject, Texts } from './address'
import type { Bench } from './useBench'

const column = (key: string, more = {}) => ({
  key,
  name: key,
  kind: 'length',
  unit: '',
  start: '',
  hint: '',
  choices: [],
  optional: false,
  when: {},
  tool: '',
  ...more,
})
const subject = {
  key: 'opener',
  order: ['readings', 'disc', 'way', 'hidden'],
  fields: [
    column('disc', { name: 'Disc', unit: 'mm', tool: 'tape' }),
    column('way', { kind: 'choice', choices: [{ key: 'a', name: 'A' }] }),
    column('hidden', { when: { way: ['b'] } }),
  ],
  tables: [
    {
      key: 'readings',
      name: 'Spans',
      columns: [column('span', { name: 'Span' }), column('feeler', { name: 'Feeler', start: 'card' })],
      hint: '',
      optional: false,
      when: {},
    },
  ],
} as unknown as Subject

function form(first: Texts, trouble: { field: string; message: string } | null = null, waits = false) {
  const texts = reactive<Texts>({ disc: '376', way: 'a', readings: [], ...first })
  const bench = {
    texts,
    problem: ref(trouble),
    waits: ref(waits),
    sources: ref({ disc: 'Dunmere 12: operator’s manual' }),
    set: (next: Texts) => Object.assign(texts, next),
    shown: (when: Record<string, string[]>) =>
      Object.entries(when).every(([key, wanted]) => wanted.includes(texts[key] as string)),
  } as unknown as Bench
  return {
    texts,
    screen: mount(BenchForm, {
      props: { subject, bench, units: 'mm' },
      global: { plugins: [PrimeVue] },
      attachTo: document.body,
    }),
  }
}

describe('the fields of a subject', () => {
  it('always has one empty row waiting, and makes rows of what is typed into it', async () => {
    const { texts, screen } = form({})
    await screen.find('[aria-label="Span, line 1"]').setValue('30')
    expect(texts.readings).toEqual([['30']])
    expect(screen.findAll('tbody tr')).toHaveLength(2)
    await screen.find('[aria-label="Feeler, line 1"]').setValue('paper')
    expect(texts.readings, 'the row that waits is kept, empty').toEqual([['30', 'paper'], []])
  })

  it('puts a starting value into the cells that were passed over', async () => {
    const { texts, screen } = form({ readings: [['30', 'card']] })
    await screen.find('[aria-label="Feeler, line 2"]').setValue('paper')
    expect(texts.readings).toEqual([
      ['30', 'card'],
      ['', 'paper'],
    ])
  })

  it('goes on with Enter, from cell to cell and out of the table, as a gauge does', async () => {
    const { screen } = form({ readings: [['30', 'card']] })
    const order: (string | null)[] = []
    const first = screen.find('[aria-label="Span, line 1"]').element as HTMLElement
    first.focus()
    for (let i = 0; i < 4; i++) {
      document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }))
      await screen.vm.$nextTick()
      order.push(document.activeElement!.getAttribute('aria-label') ?? document.activeElement!.id)
    }
    expect(order).toEqual(['Feeler, line 1', 'Span, line 2', 'Feeler, line 2', 'b-disc'])
  })

  it('says an error where it was typed and a source where there is none', () => {
    const { screen } = form(
      {
        readings: [
          ['30', 'card'],
          ['x', 'card'],
        ],
      },
      { field: 'readings.1.span', message: 'is not a length' },
    )
    expect(screen.find('[aria-label="Span, line 2"]').classes()).toContain('p-invalid')
    expect(screen.find('[aria-label="Span, line 1"]').classes()).not.toContain('p-invalid')
    expect(screen.find('fieldset [role=alert]').text()).toBe('is not a length')
    expect(screen.text()).toContain('Dunmere 12: operator’s manual')
  })

  it('says what is still to be typed without calling it wrong', () => {
    const { screen } = form({}, { field: 'readings.0.span', message: 'is missing' }, true)
    expect(screen.get('fieldset .under').text()).toBe('Still to be typed.')
    expect(screen.find('[role=alert], [aria-invalid=true]').exists()).toBe(false)
  })

  it('removes a line, and hides fields that do not belong', async () => {
    const { texts, screen } = form({
      readings: [
        ['30', 'card'],
        ['31', 'card'],
      ],
    })
    await screen.find('[aria-label="Remove line 1"]').trigger('click')
    expect(texts.readings).toEqual([['31', 'card'], []])
    expect(screen.find('#b-hidden').exists()).toBe(false)
  })
})
