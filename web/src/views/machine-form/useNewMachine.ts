/** A machine as it is being added: what was picked and typed so far, kept in the browser until the server has it. */
import { computed, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'

export interface Draft {
  uuid: string
  family: string
  /** A model of the shop, or a new one (0), or not said yet. */
  model: number | null
  maker: string
  modelName: string
  counts: Record<string, number>
  sizes: Record<string, string>
  options: Record<string, boolean>
  machine: Schemas['ParticularsIn']
  counter: string
  arrival: '' | 'new' | 'used'
}
const empty = (): Draft => ({
  uuid: newUuid(),
  family: '',
  model: null,
  maker: '',
  modelName: '',
  counts: {},
  sizes: {},
  options: {},
  machine: {
    name: '',
    serial: '',
    rows: 0,
    track_rows: [],
    options: [],
    season_date: null,
    priority: 1,
    row_spacing: '',
    folded_width: '',
    folded_height: '',
    owners: [],
    goes_with: [],
  },
  counter: '',
  arrival: '',
})

export function useNewMachine(member: number) {
  const { draft, takenUp, forget } = useDraft(`lumvek:new-machine:${member}`, empty, (kept: Draft) => !!kept.family)
  const kinds = ref<Schemas['KindsOut'] | null>(null)
  const reading = useAttempt('What may be added could not be read.')
  const adding = useAttempt('It could not be added. What you typed is kept here.')
  const kind = computed(() => kinds.value?.kinds.find((one) => one.family === draft.family))
  const model = computed(() => kind.value?.models.find((one) => one.id === draft.model))
  const load = (): Promise<boolean> =>
    reading.run(async () => void (kinds.value = await answer(api.GET('/api/machines/kinds'))))

  function pickKind(family: string): void {
    if (draft.family === family) return
    const found = kinds.value?.kinds.find((one) => one.family === family)
    Object.assign(draft, { family, model: found?.models.length ? null : 0, counts: {}, sizes: {}, options: {} })
    draft.machine.rows = found?.rows ?? 0
    draft.machine.track_rows = []
  }
  function pickModel(id: number): void {
    draft.model = id
    if (model.value && !draft.machine.name) draft.machine.name = `${model.value.maker} ${model.value.name}`
  }
  /** The sizes that were typed, in the order in which they are sent. */
  const sizes = computed(() =>
    Object.entries(draft.sizes)
      .filter(([, text]) => text.trim())
      .map(([key, text]) => ({ check: key.split(' ')[0]!, figure: key.split(' ')[1]!, text, source: 'manual' as const })),
  )
  const order = computed(() => sizes.value.map((one) => `${one.check} ${one.figure}`))

  /** As the machine that this one is like: its model, options and sizes, not its name and number. A draft that was begun stays. */
  async function like(id: number): Promise<void> {
    if (takenUp.value) return
    await reading.run(async () => {
      const found = await answer(api.GET('/api/machines/{machine_id}/particulars', { params: { path: { machine_id: id } } }))
      const { family, model: of, options = [], rows, row_spacing, track_rows, folded_width, folded_height, goes_with } = found
      pickKind(family)
      draft.model = of.id
      draft.options = Object.fromEntries((kind.value?.options ?? []).map((one) => [one.key, options.includes(one.key)]))
      Object.assign(draft.machine, { rows, row_spacing, track_rows, folded_width, folded_height, goes_with })
    })
  }
  async function add(): Promise<Schemas['MachineOut'] | null> {
    let made: Schemas['MachineOut'] | null = null
    await adding.run(async () => {
      made = await write(() =>
        api.POST('/api/machines/new', {
          body: {
            uuid: draft.uuid,
            model: {
              id: draft.model || null,
              family: draft.family,
              maker: draft.maker,
              name: draft.modelName,
              counts: draft.counts,
              sizes: sizes.value,
            },
            machine: { ...draft.machine, options: Object.keys(draft.options).filter((key) => draft.options[key]) },
            counter: draft.counter,
            arrival: draft.arrival,
          },
        }),
      )
      forget()
    })
    return made
  }
  return { draft, kinds, kind, model, reading, adding, takenUp, order, load, like, pickKind, pickModel, forget, add }
}
