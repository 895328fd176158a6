/** Working out a plan: told step by step, and kept by the server when it is done. */
import { api, type Schemas } from '@/api/client'
import { followed, type Step } from '@/api/steps'

export type Kind = Schemas['Plan']['kind']

export type PlanLine = Schemas['PlanLine']
export type OnePlan = Schemas['Plan']

/** Ask for a plan under a UUID. Raises Refused. */
export const workOut = async (uuid: string, pinned: Schemas['PinIn'][], told: (step: Step) => void): Promise<void> =>
  void (await followed(() => api.POST('/api/supply/plans', { body: { uuid, pinned }, parseAs: 'stream' }) as never, told))

export const time = (at: string): string => at.slice(11, 16)
