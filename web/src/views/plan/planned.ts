/** A plan as it is drawn: rows of people, places or machines, and what lies in them. */
import type { Schemas } from '@/api/client'

export type Plan = Schemas['SeasonPlanOut']
export type Job = Schemas['SeasonJobOut']
export type Machine = Schemas['SeasonMachineOut']
export type Rows = 'people' | 'places' | 'machines'

export interface Row {
  name: string
  /** Of a machine: the day it is wanted, and what makes it late. */
  machine?: Machine
  jobs: Job[]
}

/** Rows in the order of the plan; machines worst first. */
export function rowsOf(plan: Plan, by: Rows): Row[] {
  const placed = plan.jobs.filter((job) => job.stretches.length)
  if (by === 'people')
    return plan.people.map(({ name }) => ({ name, jobs: placed.filter((job) => job.technicians.includes(name)) }))
  if (by === 'places') {
    const rows = plan.places.map(({ name }) => ({ name, jobs: placed.filter((job) => job.place === name) }))
    return [...rows, { name: 'At the bench', jobs: placed.filter((job) => !job.place) }].filter((row) => row.jobs.length)
  }
  return worstFirst(plan.machines).map((machine) => ({
    name: machine.name,
    machine,
    jobs: placed.filter((job) => job.machine === machine.name),
  }))
}

export const worstFirst = (machines: Machine[]): Machine[] =>
  [...machines].sort(
    (a, b) => b.late_h - a.late_h || (a.due ?? '9').localeCompare(b.due ?? '9') || a.name.localeCompare(b.name),
  )

export const isLate = (plan: Plan, job: Job): boolean => {
  const machine = plan.machines.find((one) => one.name === job.machine)
  const end = job.stretches.at(-1)?.end
  return !!machine?.due && !!end && end > machine.due
}

/** ``Dunmere 12`` as ``D12``, ``Weir 107`` as ``107``: for where there is room for three letters. */
export const shortName = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => (/^\d/.test(word) ? word : word.slice(0, 1)))
    .join('')
    .slice(-3)
