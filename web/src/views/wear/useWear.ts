/** A machine's wear: what is expected, one kind of part in full, and the season that is played with. */
import { computed, onMounted, ref, watch, type ComputedRef, type Ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { figureIfTyped } from '@/app/figures'
import { useAttempt, type Attempt } from '@/app/useAttempt'

export interface Wearing {
  base: Ref<Schemas['MachineAheadOut'] | null>
  other: Ref<Schemas['MachineAheadOut'] | null>
  wear: Ref<Schemas['WearOut'] | null>
  check: Ref<string>
  more: Ref<number>
  at: Attempt
  tips: ComputedRef<Set<string>>
  load: () => Promise<boolean>
  /** For how much it is meant next, as typed; empty: what is usual. */
  ask: (use: string) => Promise<boolean>
}

const CALM = 160
/** Milliseconds of rest before a moved slider is asked about. */

export function useWear(machine: number, wanted: string): Wearing {
  const base = ref<Schemas['MachineAheadOut'] | null>(null)
  const other = ref<Schemas['MachineAheadOut'] | null>(null)
  const wear = ref<Schemas['WearOut'] | null>(null)
  const check = ref(wanted)
  const more = ref(0)
  const at = useAttempt('The wear could not be read.')
  const path = { machine_id: machine }

  async function full(): Promise<void> {
    if (check.value)
      wear.value = await answer(
        api.GET('/api/logbook/machines/{machine_id}/wear/{check}', { params: { path: { ...path, check: check.value } } }),
      )
  }
  const load = (): Promise<boolean> =>
    at.read(async () => {
      base.value = await answer(api.GET('/api/logbook/machines/{machine_id}/ahead', { params: { path } }))
      if (!base.value.checks.some((one) => one.check === check.value)) check.value = base.value.checks[0]?.check ?? ''
      await full()
    })
  onMounted(load)
  watch(check, () => {
    if (wear.value && wear.value.ahead.check !== check.value) void at.run(full)
  })

  let turn = 0
  watch(more, (share) => {
    const mine = ++turn
    if (!share) return void (other.value = null)
    setTimeout(() => {
      if (mine !== turn) return
      void answer(api.GET('/api/logbook/machines/{machine_id}/ahead', { params: { path, query: { more: share / 100 } } })).then(
        (found) => {
          if (mine === turn) [other.value, at.problem] = [found, '']
        },
        () => {
          if (mine === turn) at.problem = 'The longer season could not be worked out. Move the slider again.'
        },
      )
    }, CALM)
  })

  const ask = (typed: string): Promise<boolean> =>
    at.run(async () => {
      const use = figureIfTyped(typed, 'next_use')
      base.value = await write(() =>
        api.POST('/api/logbook/machines/{machine_id}/next-use', { params: { path }, body: { use } }),
      )
      more.value = 0
      await full()
    })
  const tips = computed(() => new Set((other.value?.tips ?? []).map((tip) => `${tip.check} ${tip.position}`)))
  return { base, other, wear, check, more, at, tips, load, ask }
}
