<script setup lang="ts">
/** Who belongs to the shop: asking somebody to join, what each may do, letting go. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import AskOnce from '@/app/AskOnce.vue'
import CopyLink from '@/app/CopyLink.vue'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import ShopTabs from '@/app/ShopTabs.vue'
import { useAttempt } from '@/app/useAttempt'
import { date, phaseName } from '@/app/words'
import { newUuid } from '@/api/uuid'
import { ROLES } from './roles'

type People = Schemas['PeopleOut']
type Person = Schemas['MemberOut']

const session = useSession()
const here = ref<People | null>(null)
const reading = useAttempt('The people could not be read.')
const inviting = useAttempt('The invitation could not be made.')
const changing = useAttempt()
const form = reactive({ uuid: newUuid(), name: '', email: '', roles: ['technician'] as string[] })
const made = ref<{ name: string; path: string; said: string } | null>(null)
const open = ref(0)
const picked = ref<string[]>([])
/** What the person in hand is at, and who is to take it. */
const work = ref<Schemas['OpenWorkOut'][]>([])
const taker = ref(0)
const takers = computed(() =>
  (here.value?.people ?? []).filter(
    (one) => !one.left_at && one.id !== open.value && (one.roles.includes('technician') || one.roles.includes('lead')),
  ),
)
const link = ref<{ whose: number; path: string; said: string } | null>(null)

onMounted(() => reading.read(async () => void (here.value = await answer(api.GET('/api/people')))))

const invite = (): Promise<boolean> =>
  inviting.run(async () => {
    const answered = await write(() => api.POST('/api/people/invitations', { body: { ...form } }))
    here.value = answered.people
    made.value = { name: form.name, path: answered.path, said: answered.said }
    Object.assign(form, { uuid: newUuid(), name: '', email: '', roles: ['technician'] })
  })
const withdraw = (invitation: string): Promise<boolean> =>
  changing.run(async () => {
    here.value = await write(() =>
      api.POST('/api/people/invitations/{invitation_id}/withdraw', { params: { path: { invitation_id: invitation } } }),
    )
    made.value = null
  })
function change(person: Person): void {
  open.value = open.value === person.id ? 0 : person.id
  picked.value = [...person.roles]
  changing.problem = ''
  link.value = null
  work.value = []
  taker.value = 0
  handed.value = ''
  if (open.value) void readWork(person.id)
}
const readWork = (id: number): Promise<boolean> =>
  changing.read(async () => {
    const found = await answer(api.GET('/api/people/{person_id}/open-work', { params: { path: { person_id: id } } }))
    if (open.value === id) work.value = found
  })
const handOver = (person: Person): Promise<boolean> =>
  changing.run(async () => {
    for (const one of work.value)
      await write(() =>
        api.POST('/api/walk-arounds/{walk_around_id}/hand-over', {
          params: { path: { walk_around_id: one.id } },
          body: { uuid: newUuid(), to: taker.value, note: `from ${person.name}` },
        }),
      )
    handed.value = `Handed over to ${takers.value.find((one) => one.id === taker.value)?.name ?? ''}.`
  })
const handed = ref('')
const setRoles = (person: Person): Promise<boolean> =>
  changing.run(async () => {
    here.value = await write(() =>
      api.POST('/api/people/{person_id}/roles', {
        params: { path: { person_id: person.id } },
        body: { roles: picked.value },
      }),
    )
    open.value = 0
    if (person.id === session.me?.id) await session.load()
  })
type Act = 'let-go' | 'take-back' | 'take-out' | 'second-factor/end'
const act = (person: Person, what: Act): Promise<boolean> =>
  changing.run(async () => {
    here.value = await write(() => api.POST(`/api/people/{person_id}/${what}`, { params: { path: { person_id: person.id } } }))
    if (what !== 'second-factor/end') open.value = 0
  })
const passwordLink = (person: Person): Promise<boolean> =>
  changing.run(async () => {
    const found = await write(() =>
      api.POST('/api/people/{person_id}/password-link', { params: { path: { person_id: person.id } } }),
    )
    link.value = { whose: person.id, ...found }
  })
</script>

<template>
  <ShopTabs />
  <section class="desk">
    <h1>People</h1>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!here" class="quiet" role="status">Reading who belongs here …</p>
    <template v-if="here">
      <form class="card ask" aria-label="Ask somebody to join" novalidate @submit.prevent="invite">
        <h2>Ask somebody to join</h2>
        <div class="fields">
          <Field label="Name" name="name" :at="inviting"><InputText v-model="form.name" maxlength="120" /></Field>
          <Field label="E-mail, if there is one" name="email" :at="inviting"
            ><InputText v-model="form.email" maxlength="200" type="email"
          /></Field>
          <fieldset>
            <legend>May do the work of</legend>
            <label v-for="role in ROLES" :key="role.key" class="tick" :title="role.what"
              ><input v-model="form.roles" type="checkbox" :value="role.key" /> {{ role.name }}</label
            >
          </fieldset>
          <Button type="submit" label="Make the link" :disabled="inviting.busy" />
        </div>
        <p v-if="inviting.problem && !['name', 'email'].includes(inviting.field)" class="problem" role="alert">
          {{ inviting.problem }}
        </p>
        <div v-if="made" class="made" role="status">
          <p>
            <b>For {{ made.name }}.</b> It works once, for two weeks. {{ made.said }}
          </p>
          <CopyLink :path="made.path" :named="`Invitation for ${made.name}`" />
        </div>
      </form>
      <p v-if="changing.problem" class="trouble" role="alert">{{ changing.problem }}</p>
      <ul v-if="here.invitations.length" class="rows" aria-label="Asked to join">
        <li v-for="one in here.invitations" :key="one.uuid" class="asked">
          <span class="who"
            ><b>{{ one.name }}</b> <small class="quiet">{{ one.email }}</small></span
          >
          <span>{{ one.role_name }}</span>
          <span class="quiet">asked to join, until {{ date(one.expires_at) }}</span>
          <CopyLink v-if="one.path !== made?.path" class="grow" :path="one.path" :named="`Link for ${one.name}`" />
          <AskOnce
            label="Withdraw"
            :named="`Withdraw the invitation of ${one.name}`"
            :question="`The link of ${one.name} works no more after this.`"
            yes="Withdraw it"
            plain
            @yes="withdraw(one.uuid)"
          />
        </li>
      </ul>
      <ul class="rows" aria-label="Who belongs here">
        <li v-for="one in here.people" :key="one.id" :class="{ left: one.left_at }">
          <span class="who"
            ><b>{{ one.name }}</b> <small class="quiet">{{ one.username }}</small></span
          >
          <span>{{ one.role_name }}</span>
          <span class="quiet grow"
            >{{ one.left_at ? `let go ${date(one.left_at)}` : one.email
            }}<template v-if="one.second_factor && !one.left_at"> · code beside the password</template></span
          >
          <button
            v-if="one.left_at && one.named"
            type="button"
            class="link"
            :aria-label="`Take back ${one.name}`"
            @click="act(one, 'take-back')"
          >
            Take back
          </button>
          <AskOnce
            v-if="one.left_at && one.named"
            label="Take out by name"
            :named="`Take out by name: ${one.name}`"
            :question="`Name, e-mail, login, password and devices of ${one.name} go for good. What they read, decided and signed stays under “Former member”, for reports must go on saying what was done; so do words that others typed. Backups made before still hold it.`"
            yes="Take them out for good"
            plain
            @yes="act(one, 'take-out')"
          />
          <button
            v-if="!one.left_at"
            type="button"
            class="link"
            :aria-expanded="open === one.id"
            :aria-label="`Change ${one.name}`"
            @click="change(one)"
          >
            {{ open === one.id ? 'Close' : 'Change' }}
          </button>
          <form v-if="open === one.id" class="more" :aria-label="one.name" @submit.prevent="setRoles(one)">
            <fieldset>
              <legend>May do the work of</legend>
              <label v-for="role in ROLES" :key="role.key" class="tick"
                ><input v-model="picked" type="checkbox" :value="role.key" />
                <span
                  >{{ role.name }}<small class="quiet">{{ role.what }}</small></span
                ></label
              >
            </fieldset>
            <div v-if="work.length" class="work">
              <p>
                <b>{{ one.name }} is at:</b>
                {{ work.map((at) => `${at.machine}, ${phaseName(at.phase).toLowerCase()} walk-around`).join('; ') }}
              </p>
              <div class="tools">
                <select v-model="taker" :aria-label="`Who takes over from ${one.name}`">
                  <option :value="0">Who takes it over?</option>
                  <option v-for="other in takers" :key="other.id" :value="other.id">{{ other.name }}</option>
                </select>
                <Button
                  type="button"
                  severity="secondary"
                  label="Hand it over"
                  :disabled="!taker || changing.busy"
                  @click="handOver(one)"
                />
                <span v-if="handed" role="status">{{ handed }}</span>
              </div>
            </div>
            <div class="tools">
              <Button type="submit" label="Save" :disabled="changing.busy" />
              <Button type="button" severity="secondary" label="Link to a new password" @click="passwordLink(one)" />
              <AskOnce
                v-if="one.second_factor"
                label="Telephone lost"
                :question="`${one.name} logs in with the password alone until another app is set up.`"
                yes="End the second factor"
                severity="secondary"
                @yes="act(one, 'second-factor/end')"
              />
              <AskOnce
                label="Let go"
                :question="`Nothing here opens for ${one.name} any more, at once. What they did stays under their name.`"
                yes="Let go"
                severity="secondary"
                @yes="act(one, 'let-go')"
              />
            </div>
            <div v-if="link?.whose === one.id" class="made" role="status">
              <p>{{ link.said }}</p>
              <CopyLink :path="link.path" :named="`Password link for ${one.name}`" />
            </div>
          </form>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="./People.css"></style>
