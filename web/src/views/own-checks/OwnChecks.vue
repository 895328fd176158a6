<script setup lang="ts">
/** The checks of the shop's own, and the shipped ones that it words otherwise or leaves out. */
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import ShopTabs from '@/app/ShopTabs.vue'
import TableFile from '@/app/TableFile.vue'
import { useAttempt } from '@/app/useAttempt'
import { date } from '@/app/words'
import AlterForm from './AlterForm.vue'

type Own = Schemas['OwnCheckOut']
type Altered = Schemas['AlteredOut']
const route = useRoute()
const all = ref<Schemas['OwnChecksOut'] | null>(null)
const reading = useAttempt('The own checks could not be read.')
const changing = useAttempt('It could not be changed.')
const load = (): Promise<boolean> => reading.read(async () => void (all.value = await answer(api.GET('/api/own-checks'))))
onMounted(load)

const checks = computed(() => all.value?.checks.filter((one) => one.typed) ?? [])
const away = computed(() => all.value?.checks.filter((one) => !one.typed) ?? [])
const altered = computed(() => all.value?.altered.filter((one) => one.holds) ?? [])
const shipped = computed(() => all.value?.altered.filter((one) => !one.holds) ?? [])
const files = computed(() => {
  const families = [...(all.value?.checks ?? []), ...(all.value?.altered ?? [])].map(
    (one) => [one.family, one.family_name] as const,
  )
  return [...new Map(families)]
})
/** What stands there to be altered, from the catalogue or from the list. */
const asked = computed(() =>
  typeof route.query.alter === 'string' && typeof route.query.of === 'string'
    ? { family: route.query.of, key: route.query.alter }
    : null,
)
const take = (family: string, key: string): Promise<boolean> =>
  changing.run(
    async () =>
      void (all.value = await write(() =>
        api.POST('/api/own-checks/taken-away', { body: { uuid: newUuid(), family, key, reason: '' } }),
      )),
  )
const before = (family: string, key: string): Promise<boolean> =>
  changing.run(
    async () =>
      void (all.value = await write(() => api.POST('/api/own-checks/as-before', { body: { uuid: newUuid(), family, key } }))),
  )
const sendFile = (form: FormData): Promise<Schemas['TableReportOut']> =>
  write(() => api.POST('/api/own-checks/file', { body: form as never, bodySerializer: (body) => body as never }))
const nameOf = (one: Altered): string => one.own.name || one.shipped.name || one.key
const WORDS = { name: 'Name', how: 'How', why: 'Why' } as const
const said = (one: Own | Altered): string =>
  [`version ${one.version}`, one.by, date(one.at), one.reason].filter(Boolean).join(', ')
</script>

<template>
  <ShopTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Own checks</h1>
      <RouterLink :to="{ name: 'new-check' }" class="add">Add a check</RouterLink>
    </header>
    <p class="quiet">
      They stand in the walk-around like those that came with the product. A change holds for walk-arounds that begin after it;
      no new catalogue takes their place.
    </p>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!all" class="quiet" role="status">Reading the own checks …</p>
    <p v-if="changing.problem" class="trouble" role="alert">{{ changing.problem }}</p>
    <template v-if="all">
      <p v-if="!checks.length" class="card">
        No check of your own yet. Whatever your machines have that no list knows – a camera, a home-made bracket, a second step
        – is looked at from now on once it stands here.
      </p>
      <ul v-else class="checks">
        <li v-for="one in checks" :key="one.family + one.key" class="card">
          <div class="tools">
            <h2 class="grow">{{ one.name }}</h2>
            <RouterLink :to="{ name: 'own-check', params: { family: one.family, check: one.key } }">Change</RouterLink>
            <button
              v-if="one.before"
              type="button"
              class="link"
              :aria-label="`As before: ${one.name}`"
              @click="before(one.family, one.key)"
            >
              As before
            </button>
            <button type="button" class="link" :aria-label="`Take away: ${one.name}`" @click="take(one.family, one.key)">
              Take away
            </button>
          </div>
          <p>
            {{ one.family_name }}<template v-if="one.model_name">, {{ one.model_name }} only</template>, {{ one.station }}:
            {{ one.typed?.how }}
          </p>
          <p v-if="one.misfit" class="problem" role="alert">In no walk-around: {{ one.misfit }}.</p>
          <p class="quiet">{{ one.kind }} · {{ said(one) }}</p>
        </li>
      </ul>
      <section aria-labelledby="altered" class="part">
        <h2 id="altered">Shipped checks, as you have them</h2>
        <AlterForm :key="asked ? asked.family + asked.key : ''" :asked="asked" @altered="(found) => (all = found)" />
        <ul class="checks">
          <li v-for="one in altered" :key="one.family + one.key" class="card">
            <div class="tools">
              <h3 class="grow">{{ nameOf(one) }} <span v-if="one.left_out" class="chip">left out</span></h3>
              <RouterLink :to="{ query: { of: one.family, alter: one.key } }" replace>Change</RouterLink>
              <button type="button" class="link" :aria-label="`As shipped: ${nameOf(one)}`" @click="take(one.family, one.key)">
                As shipped
              </button>
            </div>
            <p class="quiet">{{ one.family_name }}, {{ one.station }}</p>
            <p v-for="(name, word) in WORDS" v-show="one.own[word]" :key="word">
              {{ name }}: <b>{{ one.own[word] }}</b> <s class="quiet">{{ one.shipped[word] }}</s>
            </p>
            <p class="quiet">{{ said(one) }}</p>
          </li>
        </ul>
      </section>
      <section v-if="away.length || shipped.length" aria-labelledby="away" class="part">
        <h2 id="away">Taken away</h2>
        <ul>
          <li v-for="one in away" :key="one.family + one.key" class="tools">
            <span
              >{{ one.name }} <span class="quiet">{{ one.family_name }}, {{ said(one) }}</span></span
            >
            <button type="button" class="link" :aria-label="`Bring back: ${one.name}`" @click="before(one.family, one.key)">
              Bring back
            </button>
          </li>
          <li v-for="one in shipped" :key="one.family + one.key" class="tools">
            <span
              >{{ nameOf(one) }}, as shipped <span class="quiet">{{ one.family_name }}, {{ said(one) }}</span></span
            >
            <button type="button" class="link" :aria-label="`As before: ${nameOf(one)}`" @click="before(one.family, one.key)">
              As before
            </button>
          </li>
        </ul>
      </section>
      <details class="card">
        <summary>To and from other shops</summary>
        <p v-if="files.length" class="tools">
          <span>As the catalogue is written:</span
          ><a v-for="[family, name] in files" :key="family" :href="`/own-checks/${family}.yaml`">{{ name }}</a>
        </p>
        <TableFile
          label="Read checks from a file"
          accept=".yaml,.yml"
          :named="(count) => counted(count, 'check')"
          tell
          :send="sendFile"
          @taken="load"
        />
      </details>
    </template>
  </section>
</template>

<style scoped>
.checks,
.part {
  display: grid;
  gap: 10px;
}
.add {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 16px;
  border-radius: 6px;
  background: var(--accent);
  color: var(--on-accent);
  text-decoration: none;
}
.card h2,
.card h3 {
  margin: 0;
}
.chip {
  font-size: 0.85rem;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0 6px;
}
summary {
  min-height: var(--target);
  align-content: center;
  font-weight: 600;
  cursor: pointer;
}
</style>
