/** What is decided about findings: the words being written, what is on its way, and what was refused, each at its own finding. */
import { reactive, type Ref } from 'vue'
import { Refused, type Schemas } from '@/api/client'
import { DECISIONS, walkAroundOf } from '@/api/outbox'
import { useOnItsWay } from '@/api/useOnItsWay'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'

type Finding = Schemas['FindingOut']
type Group = Schemas['FindingGroupOut']
export type Choice = Finding['decision']
export const DECIDED: Record<Choice, string> = { do: 'Do it', wait: 'Wait', decline: 'Declined', open: 'Not decided' }

/** Names the findings that one decision is about. */
export const keyOf = (group: Group, findings: Finding[]): string =>
  group.check + findings.map((finding) => finding.place.position).join()

export function useDecisions(id: string, data: Ref<Schemas['FindingsOut'] | null>) {
  /** The decision being written: for which finding, and with which words. */
  const writing = reactive({ key: '', choice: '' as Choice | '', text: '', problem: '', uuid: '' })
  /** What the server refused, by finding. */
  const refused = reactive<Record<string, string>>({})
  const underWay = new Set<string>()
  /** Words that were begun for one finding before another form was opened. */
  const begun: Record<string, string> = {}
  const post = usePost()

  async function decide(group: Group, findings: Finding[], choice: Choice): Promise<void> {
    const key = keyOf(group, findings)
    const same = `${key} ${choice}`
    if (underWay.has(same)) return // a double click is one decision
    const written = writing.key === key && writing.choice === choice
    if ((choice === 'wait' || choice === 'decline') && !written) {
      begun[`${writing.key} ${writing.choice}`] = writing.text
      Object.assign(writing, { key, choice, text: begun[same] ?? '', problem: '', uuid: newUuid() })
      return
    }
    const words = written ? writing.text : ''
    const body = {
      uuid: written ? writing.uuid : newUuid(),
      check: group.check,
      positions: findings.map((finding) => finding.place.position),
      choice,
      until: choice === 'wait' ? words : '',
      reason: choice === 'decline' ? words : '',
    }
    const about = {
      what: `${DECIDED[choice]}: ${group.name}, ${findings.map((one) => one.label.toLowerCase()).join(', ')}`,
      shown: words,
      machine: data.value?.machine.name,
    }
    underWay.add(same)
    delete refused[key]
    try {
      await post(DECISIONS, { walk_around_id: id }, body, about)
      // Another form may have been opened meanwhile: it is not this decision's to close.
      if (writing.uuid === body.uuid) writing.key = writing.text = ''
      delete begun[same]
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (writing.key && writing.uuid === body.uuid && error.field) writing.problem = error.message
      else refused[key] = words ? `“${words}”: ${error.message}` : error.message
    } finally {
      underWay.delete(same)
    }
  }

  const { waiting } = useOnItsWay(
    DECISIONS,
    (answer, body) => put(body.check, answer),
    (entry) => walkAroundOf(entry) === id,
  )
  /** What was decided about a finding and cannot reach the server now, in words. */
  function onItsWay(group: Group, finding: Finding): string {
    const decisions = waiting.value.filter((one) => one.check === group.check && one.positions.includes(finding.place.position))
    const newest = decisions.at(-1)
    return newest ? [DECIDED[newest.choice], newest.until || newest.reason].filter(Boolean).join(': ') : ''
  }

  /** What was decided is seen at its place, with its undo, whatever the list was asked for. */
  function put(check: string, decided: Schemas['DecidedOut']): void {
    if (!data.value) return
    data.value.sum = decided.sum
    const now = decided.group?.findings ?? []
    for (const group of data.value.groups.filter((one) => one.check === check))
      group.findings = group.findings.flatMap(
        (finding) => now.find((one) => one.place.position === finding.place.position) ?? [],
      )
    data.value.groups = data.value.groups.filter((one) => one.findings.length)
  }
  return { writing, refused, decide, onItsWay }
}
