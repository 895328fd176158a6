/** An own check as it is being typed: what may be picked, what was typed so far, and what becomes of it on trial. */
import { computed, ref, watch } from 'vue'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'

export type Typed = Required<Schemas['OwnCheckIn']>
const blank = (): Typed => ({
  uuid: newUuid(),
  key: '',
  family: '',
  model: null,
  station: '',
  name: '',
  per: 'machine',
  how: '',
  why: '',
  rule: 'choice',
  unit: '',
  figures: {},
  states: [
    { name: '', severity: 'sound', action: 'none' },
    { name: '', severity: 'due', action: 'repair' },
  ],
  right: 'yes',
  severity: 'due',
  action: 'repair',
  posture: '',
  tools: [],
  hazards: [],
  phases: ['winter', 'pre-season'],
  crops: [],
  option: '',
  slot: '',
  part: '',
  quantity: 1,
  life: '',
  remedy: '',
  safety: false,
  optional: false,
  reason: '',
})
const PAUSE_MS = 350

/** key: of the check that is changed; empty for a new one. */
export function useCheckForm(member: number, family: string, key: string) {
  const kept = `lumvek:own-check:${member}:${key ? `${family}:${key}` : 'new'}`
  const { draft, takenUp, forget } = useDraft(kept, blank, (typed: Typed) => !!(typed.name || typed.how))
  const form = ref<Schemas['CheckFormOut'] | null>(null)
  const reading = useAttempt('What may be picked could not be read.')
  const saving = useAttempt('It could not be saved. What you typed is kept here.')
  const kind = computed(() => form.value?.families.find((one) => one.family === draft.family))
  const rule = computed(() => form.value?.rules.find((one) => one.key === draft.rule))
  const asks = (what: string): boolean => !!rule.value?.asks.some((one) => one === what)
  const station = computed(() => kind.value?.stations.find((one) => one.key === draft.station))

  const load = (): Promise<boolean> =>
    reading.run(async () => {
      form.value = await answer(api.GET('/api/own-checks/form'))
      if (key && !takenUp.value) await asItIs()
    })
  async function asItIs(): Promise<void> {
    const all = await answer(api.GET('/api/own-checks'))
    const there = all.checks.find((one) => one.family === family && one.key === key)?.typed
    if (!there) throw new Refused(404, 'There is no such check any more.', '', true)
    Object.assign(draft, there, { uuid: newUuid() })
  }
  function anew(): void {
    forget()
    if (key) void reading.run(asItIs)
  }
  function pickFamily(picked: string): void {
    if (picked !== draft.family)
      Object.assign(draft, { family: picked, model: null, station: '', per: 'machine', option: '', slot: '', part: '' })
  }

  /** What is refused, with the limit or the state that it is about. */
  function said(refused: Refused): string {
    const [what, which] = refused.field.split('.')
    const figure = what === 'figures' && rule.value?.figures.find((one) => one.key === which)?.name
    const state = what === 'states' && which && `State ${Number(which) + 1}`
    return [figure || state, refused.message].filter(Boolean).join(': ')
  }
  /** What the walk-around would show, and what is wanted before it can. */
  const trial = ref<Schemas['TrialOut'] | null>(null)
  const lacking = ref('')
  const tried = ref<string[]>([])
  let newest = 0
  let soon: ReturnType<typeof setTimeout> | undefined
  async function tryOut(): Promise<void> {
    const mine = ++newest
    if (!draft.family || !draft.station || !draft.name.trim()) {
      trial.value = null
      lacking.value = ''
      return
    }
    try {
      const found = await write(() => api.POST('/api/own-checks/trial', { body: { check: { ...draft }, raw: tried.value } }))
      if (mine === newest) [trial.value, lacking.value] = [found, '']
    } catch (error) {
      if (mine === newest) lacking.value = error instanceof Refused ? said(error) : 'It could not be tried out.'
    }
  }
  watch(
    [draft, tried],
    () => {
      clearTimeout(soon)
      soon = setTimeout(() => void tryOut(), PAUSE_MS)
    },
    { immediate: true, deep: true },
  )
  const keep = (): Promise<boolean> =>
    saving.run(async () => {
      await write(() => api.POST('/api/own-checks', { body: { ...draft } }))
      forget()
    })
  return {
    draft,
    takenUp,
    form,
    reading,
    saving,
    kind,
    rule,
    asks,
    station,
    load,
    anew,
    pickFamily,
    trial,
    lacking,
    tried,
    keep,
  }
}
