import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import PlanDrawing from './PlanDrawing.vue'
import type { Job, Plan } from './planned'

const day = (date: string) => ({ start: `${date}T08:00`, end: `${date}T16:00` })
const shifts = [day('2026-12-07'), day('2026-12-08')]
const job = (key: string, start: string, end: string, more: Partial<Job> = {}): Job =>
  ({
    key, name: `job ${key}`, machine: 'Heron 4', technicians: ['Tomas Vey'], hands: 1, place: 'Bay', against: [], pin_trouble: '', parts: [], begun_by: '',
    stretches: [{ start: `2026-12-07T${start}`, end: `2026-12-07T${end}` }], ...more,
  }) as unknown as Job // prettier-ignore
const plan = (jobs: Job[]): Plan =>
  ({
    now: '2026-12-07T06:00', ends: '2027-01-01T00:00', people: [{ name: 'Tomas Vey', shifts }, { name: 'Ines Marrow', shifts }], places: [{ name: 'Bay', kind: 'bay' }],
    machines: [{ id: 4, name: 'Heron 4', due: '2026-12-07T12:00', late_h: 3, ready: '2026-12-07T15:00' }], posture_moves: [{ machine: 'Heron 4', start: '2026-12-07T09:00', to: 'up', minutes: 5 }], jobs,
  }) as unknown as Plan // prettier-ignore
const JOBS = [
  job('a', '08:00', '10:00'),
  job('b', '11:00', '15:00', { pinned: true, parts: [{ arrives: '2026-12-07T12:00', words: 'chain' }] as Job['parts'] }),
]
const drawn = (more: Record<string, unknown> = {}, attachTo?: HTMLElement) =>
  mount(PlanDrawing, {
    attachTo,
    props: {
      plan: plan(JOBS),
      by: 'people',
      zoom: 'day',
      picked: '',
      put: [],
      moves: true,
      ready: new Map([[4, { short: '1 day late' }]]),
      ...more,
    } as never,
  })
const jobs = (picture: ReturnType<typeof drawn>) => picture.findAll('button.job')

describe('the drawn plan', () => {
  it('says in words what its shapes say', () => {
    expect(jobs(drawn()).map((one) => one.attributes('aria-label'))).toEqual([
      'Heron 4: job a, Mon 7 Dec 2026, 08:00, Tomas Vey',
      'Heron 4: job b, Mon 7 Dec 2026, 11:00, Tomas Vey, set by hand, late',
    ])
    expect(jobs(drawn())[1]!.classes()).toEqual(expect.arrayContaining(['late', 'pinned']))
  })
  it('moves a job by a slot a key, sets it with Enter and leaves it with Esc', async () => {
    const picture = drawn()
    const first = jobs(picture)[0]!
    await first.trigger('keydown', { key: 'ArrowRight' })
    await first.trigger('keydown', { key: 'ArrowRight' })
    expect(picture.get('.where').text()).toContain('08:30')
    await first.trigger('keydown', { key: 'Escape' })
    expect(picture.find('.where').exists()).toBe(false)
    expect(picture.emitted('move')).toBeUndefined()
    await first.trigger('keydown', { key: 'ArrowRight' })
    await first.trigger('keydown', { key: 'Enter' })
    expect(picture.emitted('move')![0]!.slice(1)).toEqual(['2026-12-07T08:15', ['Tomas Vey']])
  })
  it('stands still for whoever does not plan, and for what is done', async () => {
    for (const picture of [drawn({ moves: false }), drawn({ plan: plan([{ ...JOBS[0]!, done: true }]) })]) {
      await jobs(picture)[0]!.trigger('keydown', { key: 'ArrowRight' })
      expect(picture.find('.where').exists()).toBe(false)
    }
  })
  it('lets a plan that comes meanwhile wait under a hand that holds a job, and leaves the hand where it is', async () => {
    const picture = drawn({}, document.body)
    const come = (start: string, end: string) =>
      picture.setProps({ plan: plan([JOBS[0]!, job('b', start, end, { technicians: ['Ines Marrow'] })]) } as never)
    const second = jobs(picture)[1]!
    ;(second.element as HTMLElement).focus()
    await second.trigger('keydown', { key: 'ArrowRight' })
    await come('12:00', '16:00')
    expect(second.element.isConnected && document.activeElement === second.element).toBe(true)
    expect(picture.get('.where').text()).toContain('11:15')
    await second.trigger('keydown', { key: 'Enter' })
    expect(picture.emitted('move')![0]!.slice(1)).toEqual(['2026-12-07T11:15', ['Tomas Vey']])
    await flushPromises()
    expect(document.activeElement!.getAttribute('aria-label')).toContain('job b, Mon 7 Dec 2026, 12:00, Ines Marrow')
    await come('09:00', '13:00')
    await flushPromises()
    expect(document.activeElement!.getAttribute('aria-label')).toContain('job b, Mon 7 Dec 2026, 09:00')
    picture.unmount()
  })
  it('has posture changes, parts and the day it is wanted beside a machine', () => {
    const picture = drawn({ by: 'machines', zoom: 'season' })
    expect(['.change', '.arrival', '.due.over'].map((mark) => picture.findAll(mark).length)).toEqual([1, 1, 1])
    expect(picture.get('.arrival').attributes('title')).toContain('chain')
  })
  it('shows a job where it was put before any plan says so', () => {
    const put = [{ key: 'a', start: '2026-12-07T12:00', technicians: ['Tomas Vey'] }]
    const [there, stood] = [drawn({ put }), drawn()].map((picture) =>
      parseFloat(
        jobs(picture)[0]!
          .attributes('style')!
          .match(/left: ([\d.]+)/)![1]!,
      ),
    )
    expect(there).toBeGreaterThan(stood!)
    expect(jobs(drawn({ put }))[0]!.classes()).toContain('waits')
  })
})
