<script setup lang="ts">
/** Parts swapped between rows until it is known what is broken: who sits where, what to swap next, what each run showed. */
import { computed, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import { answer, api, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { moment, upper } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import SwapSeats from './SwapSeats.vue'

const props = defineProps<{ id: string; test: string }>()
const found = ref<Schemas['SwapTestOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const post = usePost()
const path = { swap_test_id: props.test }
onMounted(() =>
  at.read(
    async () => void (found.value = await answer(api.GET('/api/faults/swap-tests/{swap_test_id}', { params: { path } }))),
  ),
)
const about = (what: string) => ({ what, machine: found.value?.machine.name })
/** The run in hand: what was swapped before it, and what each row showed. */
const hand = reactive({ uuid: newUuid(), slots: [] as string[], row_a: '', row_b: '', faults: {} as Record<string, boolean> })
const fresh = (): void => {
  const next = found.value?.next_swap
  Object.assign(hand, {
    uuid: newUuid(),
    faults: {},
    slots: [...(next?.slots ?? [])],
    row_a: next?.row_a ?? '',
    row_b: next?.row_b ?? '',
  })
}
watch(() => found.value?.runs.length, fresh)
const open = computed(() => !!found.value && !found.value.ended_at && found.value.may_trace)
const rows = computed(() => found.value?.rows ?? [])
/** The row whose state is said next, by one key. */
const asked = computed(() => rows.value.find((row) => !(row in hand.faults)))
const keep = (): Promise<boolean> =>
  at.run(async () => {
    const { uuid, slots, row_a, row_b, faults } = hand
    const body = { uuid, swapped: slots, row_a, row_b, faults: { ...faults } }
    found.value = await post('/api/faults/swap-tests/{swap_test_id}/runs', path, body, about('Swap test: run'))
    if (hand.uuid === uuid) fresh()
  })
function say(row: string, fault: boolean): void {
  if (!open.value || at.busy) return
  hand.faults[row] = fault
  if (!asked.value) void keep()
}
function key(event: KeyboardEvent): void {
  const typed = event.target as HTMLElement
  if (['INPUT', 'SELECT', 'TEXTAREA'].includes(typed.tagName) || event.ctrlKey || event.metaKey || event.altKey) return
  if (!asked.value || !['f', '.'].includes(event.key)) return
  event.preventDefault()
  say(asked.value, event.key === 'f')
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
const takeBack = (swap_run_id: string): Promise<boolean> =>
  at.run(
    async () =>
      void (found.value = await post(
        '/api/faults/swap-runs/{swap_run_id}/take-back',
        { swap_run_id },
        undefined as never,
        about('Take back'),
      )),
  )
/** One fitting each time it ends: what was taken off again is not fitted a second time under its name. */
let endUuid = newUuid()
const end = (renewed: boolean): Promise<boolean> =>
  at.run(
    async () =>
      void (found.value = await post(
        '/api/faults/swap-tests/{swap_test_id}/end',
        path,
        { uuid: endUuid, renewed },
        about('Swap test ended'),
      )),
  )
const goOn = (): Promise<boolean> =>
  at.run(async () => {
    found.value = await post(
      '/api/faults/swap-tests/{swap_test_id}/go-on',
      path,
      undefined as never,
      about('Swap test goes on'),
    )
    endUuid = newUuid()
  })
const nameOf = (slot: string): string => found.value?.slots.find((one) => one.slot === slot)?.name ?? slot
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>{{ found ? `${found.machine.name}: swap test` : 'Swap test' }}</h1>
        <p v-if="found" class="quiet">Rows {{ found.rows.join(', ') }}. {{ found.by }}, {{ moment(found.begun_at) }}</p>
      </div>
      <RouterLink :to="{ name: 'faults', params: { id } }">All faults</RouterLink>
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <template v-if="found">
      <p class="said" :class="{ proven: found.proven }" role="status">
        <b v-if="found.proven">{{ upper(found.proven) }}</b>{{ found.proven ? ': ' : ''
        }}{{
          found.runs.length ? (found.proven ? found.words : upper(found.words)) : 'Say first how the rows run as they stand.'
        }}.
        <template v-if="found.ended_at">
          {{ found.fitted ? 'A new one was fitted.' : '' }} Ended {{ moment(found.ended_at) }}.
          <button v-if="found.may_trace" type="button" class="link" :disabled="at.busy" @click="goOn">Go on</button>
        </template>
      </p>
      <section v-if="open" class="card run" aria-labelledby="run">
        <h2 id="run">{{ found.runs.length ? 'Next run' : 'As it stands' }}</h2>
        <p v-if="hand.slots.length && !found.proven" class="swap">
          Swap the <b>{{ hand.slots.map(nameOf).join(' and the ') }}</b> of row <b>{{ hand.row_a }}</b> with that of row
          <b>{{ hand.row_b }}</b><span class="quiet">
            {{ found.next_swap?.minutes }} min. Engine off, key out; frame on its stands or lock-up pins in.</span
          >
        </p>
        <fieldset v-if="found.runs.length" class="tools">
          <legend>Swapped</legend>
          <label v-for="one in found.slots" :key="one.slot" class="pick"
            ><input v-model="hand.slots" type="checkbox" :value="one.slot" /> {{ one.name }}</label
          >
          <label
            >of row
            <select v-model="hand.row_a" aria-label="of row">
              <option v-for="row in rows" :key="row">{{ row }}</option>
            </select></label
          >
          <label
            >with row
            <select v-model="hand.row_b" aria-label="with row">
              <option v-for="row in rows" :key="row">{{ row }}</option>
            </select></label
          >
        </fieldset>
        <div v-for="row in rows" :key="row" class="tools row" :class="{ asked: row === asked }">
          <span class="which">Row {{ row }}</span>
          <Button
            :severity="hand.faults[row] === true ? undefined : 'secondary'"
            :label="`✗ Fault`"
            :aria-label="`Row ${row}: fault`"
            :aria-pressed="hand.faults[row] === true"
            :disabled="at.busy"
            @click="say(row, true)"
          />
          <Button
            :severity="hand.faults[row] === false ? undefined : 'secondary'"
            :label="`✓ Runs`"
            :aria-label="`Row ${row}: runs`"
            :aria-pressed="hand.faults[row] === false"
            :disabled="at.busy"
            @click="say(row, false)"
          />
        </div>
        <p class="quiet">Keys: f for a fault, . for a row that runs, row after row.</p>
      </section>
      <section class="card" aria-labelledby="seats">
        <h2 id="seats">Who sits where</h2>
        <SwapSeats
          :rows="found.rows"
          :slots="found.slots"
          :seats="found.seats"
          :suspects="found.suspects"
          :cleared="found.cleared"
        />
      </section>
      <section v-if="found.runs.length" class="card" aria-labelledby="runs">
        <h2 id="runs">Runs</h2>
        <ol class="listed">
          <li v-for="(one, i) in found.runs" :key="one.uuid">
            <span class="grow"
              >{{ i + 1 }}.
              {{
                one.swapped.length
                  ? `${one.swapped.join(' and ')} of rows ${one.row_a} and ${one.row_b} swapped:`
                  : 'as it stood:'
              }}
              <b>{{ rows.map((row) => `row ${row} ${one.faults[row] ? '✗ fault' : '✓ runs'}`).join(', ') }}</b><small
                class="quiet"
                >{{ one.by }}, {{ moment(one.at) }}</small
              ></span
            >
            <button
              v-if="open && i === found.runs.length - 1"
              type="button"
              class="link"
              :disabled="at.busy"
              @click="takeBack(one.uuid)"
            >
              Take back
            </button>
          </li>
        </ol>
      </section>
      <div v-if="open && found.runs.length" class="tools">
        <Button
          v-if="found.proven_slot"
          :label="`A new ${nameOf(found.proven_slot)} is fitted on row ${found.proven_row}: end`"
          :disabled="at.busy"
          @click="end(true)"
        />
        <Button severity="secondary" label="End the test" :disabled="at.busy" @click="end(false)" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.said {
  border-left: 6px solid var(--line);
  background: var(--surface);
  padding: 10px 14px;
  font-size: 1.15rem;
}
.proven {
  border-left-color: var(--accent);
}
.swap {
  font-size: 1.25rem;
}
.swap span {
  display: block;
  font-size: 1rem;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 8px;
}
legend {
  float: left;
  padding-right: 12px;
  line-height: var(--target);
}
.pick {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
.row {
  border-top: 1px solid var(--line);
  padding: 8px 0 8px 8px;
  border-left: 4px solid transparent;
}
.row.asked {
  border-left-color: var(--accent);
}
.row :deep(button) {
  min-width: 104px;
  min-height: 56px;
}
.which {
  flex: 0 0 70px;
  font-weight: 700;
  font-size: 1.15rem;
}
</style>
