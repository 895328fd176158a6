<script setup lang="ts">
/** What is checked on a kind of machine, how, why and by which limits: to look something up, with a word or two to find it. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import LooksRow from '@/design/looks/LooksRow.vue'
import { upper } from '@/app/words'

const session = useSession()
const route = useRoute()
const router = useRouter()
const families = ref<Schemas['FamilyBriefOut'][]>([])
const family = ref<Schemas['CatalogueFamilyOut'] | null>(null)
const at = useAttempt('The catalogue could not be read.')
const words = ref(typeof route.query.find === 'string' ? route.query.find : '')

const load = (): Promise<boolean> =>
  at.read(async () => {
    if (!families.value.length) families.value = await answer(api.GET('/api/catalogue'))
    const wanted = typeof route.query.of === 'string' ? route.query.of : families.value[0]!.family
    family.value = await answer(api.GET('/api/catalogue/{family}', { params: { path: { family: wanted } } }))
  })
onMounted(load)
watch(() => route.query.of, load)
watch(
  () => route.query.find,
  (find) => typeof find === 'string' && (words.value = find),
)

const found = computed(() => {
  const sought = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (family.value?.stations ?? [])
    .map((station) => ({
      ...station,
      checks: station.checks.filter((check) =>
        sought.every((word) =>
          [station.name, check.name, check.how, check.why, check.remedy, ...check.parts, ...check.tools]
            .join(' ')
            .toLowerCase()
            .includes(word),
        ),
      ),
    }))
    .filter((station) => station.checks.length)
})
const count = computed(() => found.value.reduce((sum, station) => sum + station.checks.length, 0))
/** A check's key without its header's prefix. */
const plain = (key: string): string => key.split('.').pop()!
</script>

<template>
  <section class="page">
    <header class="top">
      <h1>Catalogue</h1>
      <p class="quiet">
        What is looked at, where, how and why. Figures are starting values of the trade; the operator’s manual and the shop’s
        own limits go before them.
      </p>
    </header>
    <p v-if="at.problem" class="problem" role="alert">
      {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
    </p>
    <nav class="families" aria-label="Kinds of machine">
      <button
        v-for="one in families"
        :key="one.family"
        type="button"
        :class="{ on: family?.family === one.family }"
        :aria-current="family?.family === one.family ? 'true' : undefined"
        @click="router.replace({ query: { of: one.family } })"
      >
        {{ one.name }} <span class="quiet">{{ one.checks }}</span>
      </button>
    </nav>
    <template v-if="family">
      <div class="find">
        <InputText
          v-model="words"
          maxlength="80"
          aria-label="Find in this catalogue"
          placeholder="Find: bearing, chain, 21 mm …"
        />
        <span class="quiet" role="status">{{ count }} of {{ counted(family.checks, 'check') }}. {{ family.flow }}.</span>
      </div>
      <section v-for="station in found" :key="station.key" :aria-labelledby="`station-${station.key}`">
        <h2 :id="`station-${station.key}`">{{ station.name }}</h2>
        <details v-for="check in station.checks" :key="check.key">
          <summary>
            <b>{{ check.name }}</b><span v-if="check.safety" class="chip stop">safety item</span
            ><span v-if="check.often_missed" class="chip">often missed</span
            ><span v-if="check.optional" class="chip">optional</span><span v-if="check.own" class="chip">own check</span
            ><span v-if="check.left_out" class="chip">left out here: {{ check.left_out }}</span
            ><span v-else-if="check.altered" class="chip">worded by the shop: {{ check.altered }}</span
            ><span class="quiet where">{{ check.where }}</span>
          </summary>
          <LooksRow
            v-if="check.looks.length"
            class="looks"
            :looks="check.looks"
            :label="`What the states of ${check.name} look like`"
          />
          <dl>
            <dt>How</dt>
            <dd>{{ check.how }}</dd>
            <dt>Why</dt>
            <dd>{{ check.why }}</dd>
            <dt>Posture</dt>
            <dd>{{ upper(check.posture) }}</dd>
            <template v-if="check.tools.length"
              ><dt>Tools</dt>
              <dd>{{ check.tools.join(', ') }}</dd></template
            >
            <template v-if="check.limits.length"
              ><dt>Limits</dt>
              <dd>
                {{ check.limits.join('; ') }} <span class="quiet">{{ check.source }}</span>
              </dd></template
            >
            <template v-if="check.verdicts.length"
              ><dt>Verdicts</dt>
              <dd>{{ check.verdicts.join(' · ') }}</dd></template
            >
            <template v-if="check.remedy"
              ><dt>Remedy</dt>
              <dd>{{ check.remedy }}</dd></template
            >
            <template v-if="check.parts.length"
              ><dt>Parts</dt>
              <dd>{{ check.parts.join(', ') }}</dd></template
            >
            <template v-if="check.companions.length"
              ><dt>Along with it</dt>
              <dd>{{ check.companions.join(' ') }}</dd></template
            >
            <template v-if="check.hazards.length"
              ><dt>Care</dt>
              <dd>{{ check.hazards.join(' ') }}</dd></template
            >
            <dt>When</dt>
            <dd>
              {{ check.phases.join(', ') }}<template v-if="check.when">; {{ check.when }}</template>
            </dd>
            <template v-if="session.may('change checks')"
              ><dt>Here</dt>
              <dd>
                <RouterLink
                  v-if="check.own"
                  :to="{ name: 'own-check', params: { family: family.family, check: plain(check.key) } }"
                  >Change this check of yours</RouterLink
                ><RouterLink v-else :to="{ name: 'own-checks', query: { of: family.family, alter: plain(check.key) } }"
                  >Word it otherwise, or leave it out</RouterLink
                >
              </dd></template
            >
          </dl>
        </details>
      </section>
      <p v-if="!found.length" class="quiet">No check has these words.</p>
    </template>
  </section>
</template>

<style scoped>
.page {
  max-width: 1100px;
  margin: 0 auto;
  padding: 16px 20px 60px;
  display: grid;
  gap: 12px;
}
.looks {
  padding: 6px 12px 2px;
}
.families {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.families button {
  min-height: var(--target);
  padding: 0 14px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  cursor: pointer;
}
.families .on {
  border-color: var(--accent);
  background: var(--accent-soft);
  font-weight: 600;
}
.find {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}
.find :deep(input) {
  min-height: 48px;
  width: min(360px, 100%);
}
h2 {
  padding: 12px 0 4px;
}
details {
  border-top: 1px solid var(--line);
}
summary {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: var(--target);
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 14px;
  font-weight: 600;
  color: var(--accent);
}
details[open] summary::before {
  content: '−';
}
.where {
  margin-left: auto;
}
.chip {
  padding: 0 8px;
  border-radius: 10px;
  background: var(--sunk);
}
.chip.stop {
  color: var(--stop);
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 3px 14px;
  margin: 0 0 12px 24px;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  max-width: 78ch;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  .page {
    padding: 12px;
  }
  dl {
    grid-template-columns: 1fr;
    margin-left: 0;
  }
  dt {
    margin-top: 4px;
  }
  .where {
    margin-left: 24px;
    width: 100%;
  }
}
</style>
