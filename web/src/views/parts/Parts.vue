<script setup lang="ts">
/** One list of parts from all findings, with what goes along, and what is still without a number first. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { answer, api, Refused, type Part, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { useSession } from '@/app/session'
import StillStanding from '@/app/StillStanding.vue'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'

const props = defineProps<{ id: string }>()
const session = useSession()
const data = ref<Schemas['PartsOut'] | null>(null)
const problem = ref('')
const post = usePost()
const declining = reactive({ slot: '', reason: '', problem: '' })
const path = { params: { path: { walk_around_id: props.id } } }
const fetchParts = () => answer(api.GET('/api/walk-arounds/{walk_around_id}/parts', path))

async function run(call: ReturnType<typeof fetchParts>): Promise<void> {
  try {
    data.value = await call
    problem.value = ''
    declining.slot = ''
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'The parts could not be read.'
  }
}

const rows = computed(() =>
  (data.value?.parts ?? []).map((part) => {
    const along = part.pieces.filter((piece) => piece.origin !== 'finding' && !piece.declined_reason)
    const declined = part.pieces.filter((piece) => piece.declined_reason)
    return {
      part,
      along: along[0],
      open: along.map((piece) => piece.position),
      declined: declined[0],
      declinedPositions: declined.map((piece) => piece.position),
    }
  }),
)
const numberless = computed(() => rows.value.filter((row) => !row.part.number && row.part.quantity).length)

async function decline(part: Part, positions: string[], reason: string): Promise<void> {
  await run(
    post(
      '/api/walk-arounds/{walk_around_id}/companions',
      { walk_around_id: props.id },
      { slot: part.slot, positions, reason },
      { what: `${reason ? 'Decline' : 'Take back'} ${part.name}`, shown: reason, machine: data.value?.machine.name },
    ),
  )
}

async function submit(part: Part, positions: string[]): Promise<void> {
  if (!declining.reason.trim()) return void (declining.problem = 'Say why it is declined.')
  await decline(part, positions, declining.reason)
}

onMounted(() => run(fetchParts()))
</script>

<template>
  <p v-if="problem" class="trouble" role="alert">
    {{ problem }} <Button label="Try again" severity="secondary" @click="run(fetchParts())" />
  </p>
  <p v-if="!data && !problem" class="trouble quiet" role="status">Reading the parts …</p>
  <template v-if="data">
    <WalkAroundHeader :id="id" :machine="data.machine" :walk-around="data.walk_around" />
    <section class="page">
      <StillStanding :before="data.before" to="parts" />
      <p v-if="!rows.length" class="quiet">No parts are called for yet.</p>
      <div v-else class="table">
        <p class="top">
          <span v-if="numberless"
            ><b>{{ numberless }}</b> without a number, listed first</span
          ><span class="links"
            ><RouterLink v-if="!session.onlyOwns" :to="{ name: 'needed' }">The list of all machines</RouterLink
            ><a :href="`/walk-arounds/${id}/parts.csv`">Parts as CSV</a></span
          >
        </p>
        <table>
          <thead>
            <tr>
              <th>Part</th>
              <th>Number</th>
              <th class="n">Needed</th>
              <th class="n">Order</th>
              <th>For</th>
              <th v-if="data.may_decide"><span class="unseen">Decline</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.part.slot + row.part.side" :class="{ out: !row.part.quantity }">
              <td>
                <b
                  >{{ row.part.name }}<template v-if="row.part.side_name">, {{ row.part.side_name }}</template></b
                ><small v-if="row.part.note" class="quiet">{{ row.part.note }}</small>
              </td>
              <td :class="{ missing: !row.part.number }">{{ row.part.number || 'to be found' }}</td>
              <td class="n" data-label="needed">{{ row.part.quantity }}</td>
              <td class="n" data-label="order">
                {{ row.part.order }}<small v-if="row.part.pack > 1" class="quiet">packs of {{ row.part.pack }}</small>
              </td>
              <td>
                <p v-if="row.part.found_at">{{ row.part.found_at }} <span class="quiet">found</span></p>
                <p v-if="row.along">
                  <span class="plus">+</span> {{ row.part.along_at }}
                  <span class="quiet">along with {{ row.along.because }}: {{ row.along.why }}</span>
                </p>
                <p v-if="row.declined" class="quiet">
                  Declined {{ row.part.declined_at }}: {{ row.declined.declined_reason }} ({{ row.declined.declined_by }})
                  <button
                    v-if="data.may_decide"
                    type="button"
                    class="link"
                    @click="decline(row.part, row.declinedPositions, '')"
                  >
                    take it back
                  </button>
                </p>
                <form
                  v-if="declining.slot === row.part.slot + row.part.side"
                  class="words"
                  @submit.prevent="submit(row.part, row.open)"
                >
                  <label :for="`why-${row.part.slot}`">Why decline it?</label>
                  <InputText
                    :id="`why-${row.part.slot}`"
                    v-model="declining.reason"
                    maxlength="200"
                    v-focus
                    :invalid="!!declining.problem"
                  />
                  <Button type="submit" size="small" label="Decline" /><Button
                    size="small"
                    text
                    severity="secondary"
                    label="Cancel"
                    data-out
                    @click="declining.slot = ''"
                  />
                  <p v-if="declining.problem" class="problem" role="alert">{{ declining.problem }}</p>
                </form>
              </td>
              <td v-if="data.may_decide" class="act">
                <Button
                  v-if="row.open.length"
                  size="small"
                  severity="secondary"
                  text
                  label="Decline"
                  :aria-label="`Decline ${row.part.name} along with ${row.along?.because}`"
                  @click="Object.assign(declining, { slot: row.part.slot + row.part.side, reason: '', problem: '' })"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-if="data.tasks.length" class="tasks">
        <h2>Done along with them</h2>
        <ul>
          <li v-for="task in data.tasks" :key="task.label + task.text">
            <b>{{ task.label }}.</b> {{ task.text }} <span class="quiet">{{ task.why }}</span>
          </li>
        </ul>
      </div>
    </section>
  </template>
</template>

<style scoped src="./Parts.css"></style>
