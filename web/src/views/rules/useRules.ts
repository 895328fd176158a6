/** What the shop decides for itself, read and changed. */
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, Refused, write, type Schemas } from '@/api/client'

export function useRules() {
  type Tab = 'limits' | 'schools' | 'feelers' | 'log'
  const route = useRoute()
  const router = useRouter()
  const rules = ref<Schemas['RulesOut'] | null>(null)
  const model = ref<Schemas['ModelRulesOut'] | null>(null)
  const problem = ref('')
  const words = ref('')
  const TABS: { key: Tab; name: string }[] = [
    { key: 'limits', name: 'Models' },
    { key: 'schools', name: 'Schools' },
    { key: 'feelers', name: 'Feelers' },
    { key: 'log', name: 'What was changed' },
  ]
  const tab = computed<Tab>(() => (TABS.some((one) => one.key === route.query.tab) ? (route.query.tab as Tab) : 'limits'))
  const modelId = computed(
    () =>
      Number(route.query.model) ||
      (rules.value?.models.find((one) => one.kind.startsWith('Row-crop planter')) ?? rules.value?.models[0])?.id ||
      0,
  )
  const edit = reactive({ key: '', text: '', source: 'shop', note: '', problem: '' })
  const feeler = reactive({ name: '', thickness: '', problem: '' })
  /** What was given up last, for who wants it back. */
  const gone = reactive({ what: '', back: null as null | (() => Promise<unknown>) })
  /** Schools as picked, before they are saved. */
  const picked = reactive<Record<string, string>>({})

  /** Sends a change. While it is on its way and once it holds, what the one before left to be put back cannot be taken for it. */
  async function change<T>(send: Parameters<typeof write<T>>[0]): Promise<T> {
    const before = { ...gone }
    Object.assign(gone, { what: '', back: null })
    try {
      return await write(send)
    } catch (error) {
      Object.assign(gone, before)
      throw error
    }
  }
  async function run<T>(call: Promise<T>, take: (found: T) => void): Promise<boolean> {
    try {
      take(await call)
      problem.value = ''
      return true
    } catch (error) {
      problem.value = error instanceof Refused ? error.message : 'That could not be done.'
      return false
    }
  }
  onMounted(() => run(answer(api.GET('/api/rules')), (found) => (rules.value = found)))
  const readModel = (id: number): Promise<boolean> =>
    run(answer(api.GET('/api/rules/models/{model_id}', { params: { path: { model_id: id } } })), (found) => {
      // What was asked for before another model was chosen comes too late.
      if (id === modelId.value) model.value = found
    })
  watch(modelId, (id) => void (id && readModel(id)))
  /** Everything anew, and this model: it may have come just now. */
  async function reload(id = modelId.value): Promise<void> {
    await run(answer(api.GET('/api/rules')), (found) => (rules.value = found))
    if (id === modelId.value) await readModel(id)
    else await router.replace({ query: { ...route.query, model: String(id) } })
  }

  const checks = computed(() => {
    const sought = words.value.toLowerCase().trim()
    return (model.value?.checks ?? []).filter(
      (check) => !sought || `${check.name} ${check.station}`.toLowerCase().includes(sought),
    )
  })
  const begin = (key: string, figure: Schemas['RuleFigureOut']): void =>
    void Object.assign(edit, {
      key,
      text: figure.own ? figure.typed : '',
      source: figure.source === "operator's manual" ? 'manual' : 'shop',
      note: figure.note,
      problem: '',
    })

  async function setLimit(check: string, figure: string, text: string): Promise<void> {
    try {
      model.value = await change(() =>
        api.POST('/api/rules/models/{model_id}/limits', {
          params: { path: { model_id: modelId.value } },
          body: { check, figure, text, source: edit.source, note: edit.note },
        }),
      )
      edit.key = ''
      await run(answer(api.GET('/api/rules')), (found) => (rules.value = found))
    } catch (error) {
      edit.problem = error instanceof Refused ? error.message : 'It could not be saved.'
    }
  }
  async function asShipped(check: Schemas['RuleCheckOut'], figure: Schemas['RuleFigureOut']): Promise<void> {
    const { shown, typed, note, source } = figure
    Object.assign(edit, { source: source === "operator's manual" ? 'manual' : 'shop', note: '', problem: '' })
    await setLimit(check.check, figure.figure, '')
    if (edit.problem) return
    const put = async (): Promise<void> => {
      Object.assign(edit, { source: source === "operator's manual" ? 'manual' : 'shop', note })
      await setLimit(check.check, figure.figure, typed)
    }
    Object.assign(gone, { what: `${check.name}, ${figure.name.toLowerCase()}: ${shown} given up.`, back: put })
  }
  async function remove(one: Schemas['FeelerOut']): Promise<void> {
    await setFeeler(one.name, '')
    if (!feeler.problem)
      Object.assign(gone, {
        what: `${one.name}, ${one.thickness_mm} mm, removed.`,
        back: () => setFeeler(one.name, `${one.thickness_mm} mm`),
      })
  }
  const putBack = (): Promise<unknown> | undefined => gone.back?.()
  /** How many of each thing, as typed and not taken yet, with what was wrong about it. */
  const counting = reactive<Record<string, { count: number; problem: string }>>({})
  const typeCount = (thing: string, count: number | null): void => void (counting[thing] = { count: count!, problem: '' })
  watch(modelId, () => {
    for (const thing of Object.keys(counting)) delete counting[thing]
  })
  async function setCount(thing: string): Promise<void> {
    const typed = counting[thing]
    if (!typed) return
    const { count } = typed
    try {
      model.value = await change(() =>
        api.POST('/api/rules/models/{model_id}/counts', {
          params: { path: { model_id: modelId.value } },
          body: { thing, count },
        }),
      )
      if (counting[thing] === typed && typed.count === count) delete counting[thing]
    } catch (error) {
      typed.problem = error instanceof Refused ? error.message : 'It could not be saved.'
    }
  }
  async function setSchool(school: Schemas['SchoolOut']): Promise<void> {
    const [subject, choice, before] = [school.subject, picked[school.subject] ?? school.chosen, school.chosen]
    const save = (to: string) =>
      run(
        change(() => api.POST('/api/rules/schools', { body: { subject, choice: to } })),
        (found) => {
          rules.value = found
          delete picked[subject]
        },
      )
    const name = (key: string): string => school.choices.find((one) => one.key === key)?.name ?? key
    if (await save(choice))
      Object.assign(gone, { what: `${school.name}: ${name(choice).toLowerCase()} from now on.`, back: () => save(before) })
  }
  async function setFeeler(name: string, thickness: string): Promise<void> {
    try {
      rules.value = await change(() => api.POST('/api/rules/feelers', { body: { name, thickness } }))
      Object.assign(feeler, { name: '', thickness: '', problem: '' })
    } catch (error) {
      feeler.problem = error instanceof Refused ? error.message : 'It could not be saved.'
    }
  }

  return {
    route,
    router,
    rules,
    model,
    problem,
    words,
    TABS,
    tab,
    modelId,
    edit,
    feeler,
    gone,
    picked,
    checks,
    begin,
    setLimit,
    asShipped,
    remove,
    putBack,
    counting,
    typeCount,
    setCount,
    setSchool,
    setFeeler,
    reload,
  }
}
