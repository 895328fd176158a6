/** What the screen of the season's plan knows and does: the plan people work by, working one out, moving jobs, trying things. */
import { computed, onMounted, ref, watch } from 'vue'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { followed } from '@/api/steps'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'
import type { Job, Plan } from './planned'
import { useUnderWay } from './useUnderWay'

interface Told {
  what: string
  found: number
  bound: number
}
export type Tried = Partial<Omit<Schemas['SeasonPlanIn'], 'uuid' | 'anew'>>
export interface Moved {
  key: string
  start: string
  technicians: string[]
}

const LOOKS_MS = 1500
const LOOKS = 60

export function usePlan() {
  const season = ref<Schemas['SeasonWorkOut'] | null>(null)
  /** A plan that is only looked at: worked out, and not taken yet. */
  const tried = ref<Plan | null>(null)
  const told = ref<Told[]>([])
  const working = ref('')
  /** Where jobs were put a moment ago, until a plan says so. */
  const put = ref<Moved[]>([])
  /** What was moved last, to take it back. */
  const last = ref<{ mark: string; name: string } | null>(null)
  const at = useAttempt('The plan could not be worked out.')
  /** What was wrong with the last change. */
  const sending = ref('')
  /** Changes the server has not heard of yet. */
  const unheard = ref(0)
  /** A plan is made, read or taken, or a change is on its way that asks for another one. */
  const busy = computed(() => at.busy || unheard.value > 0)
  const post = usePost()
  const plan = computed<Plan | null>(() => tried.value ?? season.value?.plan ?? null)

  const read = async (): Promise<void> => void (season.value = await answer(api.GET('/api/season')))
  onMounted(() => at.read(read))
  useUnderWay(season)

  /** Have a plan worked out; without anything tried it is taken. machines: that come before the season's nearest, where there
   * are more than can be planned. */
  async function workOut(what: Tried = {}, anew = false, machines = season.value?.plan?.chosen ?? []): Promise<void> {
    const uuid = newUuid()
    const waited = put.value
    working.value = uuid
    told.value = []
    let broke: unknown = null
    try {
      await followed<unknown, Told>(
        () =>
          api.POST('/api/season/plans', {
            body: { uuid, anew, hand: false, rush: '', machines, ...what },
            parseAs: 'stream',
          }) as never,
        (step) => told.value.push(step),
      ).catch((error: unknown) => {
        // Where only the connection broke, it is worked out all the same.
        if (!(error instanceof Refused) || error.status) throw error
        broke = error
      })
      const made = await workedOut(uuid).catch((error: unknown) => {
        throw broke ?? error
      })
      if (Object.keys(what).length) tried.value = made
      else await work(uuid)
    } finally {
      working.value = ''
      put.value = put.value.filter((one) => !waited.includes(one))
    }
  }
  /** A plan that is worked out, or will be in a moment. */
  async function workedOut(season_plan_id: string): Promise<Plan> {
    for (let looks = 0; looks < LOOKS; looks++) {
      const made = await answer(api.GET('/api/season/plans/{season_plan_id}', { params: { path: { season_plan_id } } }))
      if (made) return made
      await new Promise((resolve) => window.setTimeout(resolve, LOOKS_MS))
    }
    throw new Refused(0, 'The connection broke while it was worked on. Ask for it again.')
  }
  /** Work by a plan from now on. */
  async function work(season_plan_id: string): Promise<void> {
    season.value = await write(() =>
      api.POST('/api/season/plans/{season_plan_id}/take', { params: { path: { season_plan_id } } }),
    )
    tried.value = null
  }
  const workBy = (other: Plan): Promise<boolean> => at.run(() => work(other.uuid))
  const earlier = ref<Schemas['SeasonPlanBrief'][]>([])
  const listing = useAttempt('Earlier plans could not be read.')
  watch([season, tried], () => listing.read(async () => void (earlier.value = await answer(api.GET('/api/season/plans')))))
  /** Another plan, to be held against the one people work by. */
  const look = (season_plan_id: string): Promise<boolean> =>
    at.run(async () => {
      const other = season_plan_id && season_plan_id !== season.value?.plan?.uuid
      tried.value = other
        ? ((await answer(api.GET('/api/season/plans/{season_plan_id}', { params: { path: { season_plan_id } } }))) as Plan)
        : null
    })
  /** What was changed while a plan was worked out, or another one looked at, is in the next one. */
  let wanted = false
  const planned = (first: () => Promise<void>): Promise<boolean> =>
    at.run(async () => {
      await first()
      while (wanted) {
        wanted = false
        await workOut()
      }
    })
  watch(
    () => at.busy,
    (now) => {
      if (!now && wanted) void planned(() => Promise.resolve())
    },
  )
  const again = (): Promise<boolean> => planned(() => workOut())
  const anew = (): Promise<boolean> => planned(() => workOut({}, true))
  const first = (machines: number[]): Promise<boolean> => planned(() => workOut({}, false, machines))
  const tryOut = (what: Tried): Promise<boolean> => planned(() => workOut(what))
  /** The best there is so far will do. */
  async function enough(): Promise<void> {
    const season_plan_id = working.value
    if (season_plan_id)
      await write(() => api.POST('/api/season/plans/{season_plan_id}/enough', { params: { path: { season_plan_id } } })).catch(
        () => undefined,
      )
  }

  async function mark(
    key: string,
    kind: Schemas['JobMarkIn']['kind'],
    name: string,
    more: Partial<Schemas['JobMarkIn']> = {},
  ): Promise<string> {
    const uuid = newUuid()
    season.value = await post('/api/season/marks', undefined, { uuid, key, kind, ...more } as never, { what: name })
    return uuid
  }
  /** Something is otherwise: it is written at once, whatever is worked out at this moment, and a plan made of it as soon as may be. */
  async function otherwise(change: () => Promise<void>): Promise<void> {
    unheard.value++
    try {
      await change()
      sending.value = ''
      wanted = true
    } catch (error) {
      sending.value = error instanceof Refused ? error.message : 'That could not be sent.'
      return
    } finally {
      unheard.value--
    }
    if (working.value) return enough()
    await planned(() => Promise.resolve())
  }
  /** A job stays where somebody put it, and everything else gives way. */
  const move = (job: Job, start: string, technicians: string[]): Promise<void> => {
    const elsewhere = (): Moved[] => put.value.filter((one) => one.key !== job.key)
    put.value = [...elsewhere(), { key: job.key, start, technicians }]
    return otherwise(async () => {
      const uuid = await mark(job.key, 'pin', `Move ${job.name}`, { pin: { start, technicians, place: '' } }).catch(
        (refused: unknown) => {
          put.value = elsewhere()
          throw refused
        },
      )
      last.value = { mark: uuid, name: job.name }
    })
  }
  /** A job was typed or changed. */
  const typed = (): Promise<void> => otherwise(() => Promise.resolve())
  const letGo = (job: Job): Promise<void> =>
    otherwise(async () => void (await mark(job.key, 'pin', `Let ${job.name} move again`)))
  /** A job that was typed is no job after all. */
  const takeBackJob = (job: Job): Promise<void> =>
    otherwise(async () => {
      const own_job_id = job.key.split(':').at(-1)!
      season.value = await post('/api/season/jobs/{own_job_id}/take-back', { own_job_id }, undefined as never, {
        what: `Not to be done: ${job.name}`,
      })
    })
  const takeBack = (): Promise<void> =>
    otherwise(async () => {
      if (!last.value) return
      const mark_id = last.value.mark
      season.value = await post('/api/season/marks/{mark_id}/take-back', { mark_id }, undefined as never, {
        what: 'Mark taken back',
      })
      last.value = null
    })
  return {
    season,
    plan,
    tried,
    told,
    working,
    put,
    last,
    at,
    busy,
    unheard,
    sending,
    again,
    earlier,
    listing,
    look,
    anew,
    first,
    tryOut,
    enough,
    workBy,
    move,
    typed,
    letGo,
    takeBack,
    takeBackJob,
  }
}
