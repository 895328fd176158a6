<script setup lang="ts">
/** How one machine wears: every place beside the others, one of them large, and what a longer season would tip over. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import Slider from '@/design/controls/slider'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { counted } from '@/app/counted'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS } from '@/design/severity'
import { figure, frame, percent } from './figures'
import PlaceDetail from './PlaceDetail.vue'
import SeasonHeat from './SeasonHeat.vue'
import WearTile from './WearTile.vue'
import { useWear } from './useWear'

const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const state = useWear(Number(props.id), typeof route.query.check === 'string' ? route.query.check : '')
const { base, other, wear, check, more, tips } = state
const chosen = ref(typeof route.query.at === 'string' ? route.query.at : '')

const places = computed(() => new Map((wear.value?.ahead.places ?? []).map((one) => [one.position, one])))
const rowed = computed(() => (wear.value?.places ?? []).every((one) => one.row !== null))
const sides = computed(() => (wear.value?.places.some((one) => one.side === 'R') ? ['L', 'R'] : ['']))
/** One column a row, left above right; a column a place where there are no rows. */
const columns = computed(() => {
  const all = wear.value?.places ?? []
  if (!rowed.value) return all.map((one) => [one.position])
  const rows = [...new Set(all.map((one) => one.row))]
  return rows.map((row) => sides.value.map((side) => all.find((one) => one.row === row && one.side === side)?.position ?? ''))
})
/** Above the seasons, column by column, where there are enough of them to fill the width. */
const aligned = computed(() => rowed.value || columns.value.length > 7)
/** What the tiles show: the season that is played with, where there is one. */
const played = computed(() => {
  const found = other.value?.checks.find((one) => one.check === check.value)
  return found ? new Map(found.places.map((one) => [one.position, one])) : places.value
})
const small = computed(() =>
  wear.value
    ? frame(wear.value.places, wear.value.ahead.new, wear.value.ahead.limit, wear.value.end, {
        left: 3,
        top: 4,
        width: 70,
        height: 48,
      })
    : null,
)
const place = computed(() => wear.value?.places.find((one) => one.position === chosen.value))
const otherPlace = computed(() => {
  const found = other.value?.checks
    .find((one) => one.check === check.value)
    ?.places.find((one) => one.position === chosen.value)
  return found && other.value?.next_use.counter != null
    ? { end: other.value.next_use.counter + (other.value.next_use.use ?? 0) * (1 + other.value.more), place: found }
    : undefined
})
const fastest = computed(() => [...places.value.values()].sort((a, b) => b.rate - a.rate).slice(0, 6))
const worst = (one: { places: { state: 'sound' | 'watch' | 'due' }[] }): 'sound' | 'watch' | 'due' =>
  (['due', 'watch'] as const).find((state) => one.places.some((at) => at.state === state)) ?? 'sound'
const many = (one: { places: { state: string }[] }): number => one.places.filter((at) => at.state !== 'sound').length
const season = computed(() => Math.round((base.value?.next_use.use ?? 0) * (1 + more.value / 100)))

/** The place that needs looking at most, until somebody picks another. */
watch(wear, (found) => {
  if (!found || places.value.has(chosen.value)) return
  chosen.value = [...found.ahead.places].sort((a, b) => b.p - a.p || b.rate - a.rate)[0]?.position ?? ''
})
watch([check, chosen], ([key, at]) => void router.replace({ query: { check: key, at } }))

const asking = reactive({ open: false, text: '' })
async function ask(): Promise<void> {
  if (await state.ask(asking.text)) asking.open = false
}
const csv = computed(() => `/machines/${props.id}/wear/${check.value}.csv`)
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <p v-if="state.at.problem && !asking.open" class="trouble" role="alert">
      {{ state.at.problem }} <Button v-if="!base" label="Try again" severity="secondary" @click="state.load()" />
    </p>
    <p v-if="!base && !state.at.problem" class="quiet" role="status">Reading how it wears …</p>
    <template v-if="base">
      <header class="top">
        <div>
          <h1>{{ base.machine }}</h1>
          <p v-if="base.next_use.counter !== null">
            Stands at <b>{{ Math.round(base.next_use.counter) }} {{ base.next_use.unit }}</b
            >. Coming season <b>{{ Math.round(base.next_use.use ?? 0) }} {{ base.next_use.unit }}</b
            >, <span class="quiet">{{ base.next_use.source }}</span>
            <button
              v-if="base.may_change"
              type="button"
              class="link"
              @click="
                Object.assign(asking, { open: !asking.open, text: base.next_use.asked ? String(base.next_use.asked) : '' })
              "
            >
              change
            </button>
          </p>
          <form v-if="asking.open" class="tools" @submit.prevent="ask">
            <label
              >{{ base.next_use.unit }} this season
              <InputText
                v-model="asking.text"
                v-focus
                class="short"
                inputmode="decimal"
                :invalid="!!state.at.problem"
                :placeholder="base.next_use.usual ? `${Math.round(base.next_use.usual)} as usual` : ''" /></label
            ><Button type="submit" label="Save" :disabled="state.at.busy" /><Button
              type="button"
              text
              severity="secondary"
              label="Cancel"
              data-out
              @click="asking.open = false"
            />
            <p v-if="state.at.problem" class="problem" role="alert">{{ state.at.problem }}</p>
          </form>
        </div>
        <div v-if="base.checks.length" class="play" role="group" aria-labelledby="play">
          <p id="play">
            If it does <output>{{ more > 0 ? '+' : more < 0 ? '−' : '' }}{{ Math.abs(more) }} %</output>
            <span class="quiet">{{ season }} {{ base.next_use.unit }}</span>
            <button v-if="more" type="button" class="link" @click="more = 0">back to 0</button>
          </p>
          <Slider v-model="more" :min="-40" :max="60" :step="5" aria-label="How much more this machine does, in per cent" />
          <p class="tipped" role="status">
            <template v-if="other"
              ><template v-if="other.tips.length"
                ><b>{{ counted(other.tips.length, 'tips', 'tip') }} over:</b>
                <span v-for="tip in other.tips.slice(0, 5)" :key="tip.check + tip.position"
                  >{{ tip.name }}, {{ tip.label.toLowerCase() }} <SeverityMark :severity="tip.after" wordless :size="13" />
                  {{ WORDS[tip.after].toLowerCase() }} ({{ percent(tip.chance_before) }} →
                  {{ percent(tip.chance_after) }}). </span
                ><span v-if="other.tips.length > 5">And {{ other.tips.length - 5 }} more.</span></template
              ><template v-else>Nothing tips over.</template></template
            ><span v-else class="quiet">Move it to see which parts tip over.</span>
          </p>
        </div>
      </header>
      <p v-if="!base.checks.length" class="quiet">
        Nothing to forecast yet. Its counter and a first walk-around with measured parts begin its history.
      </p>
      <div v-else class="body">
        <aside class="side">
          <ul class="kinds" aria-label="Parts that wear">
            <li v-for="one in base.checks" :key="one.check">
              <button
                type="button"
                :class="{ on: one.check === check }"
                :aria-pressed="one.check === check"
                @click="check = one.check"
              >
                <SeverityMark :severity="worst(one)" wordless :size="16" /><span>{{ one.name }}</span
                ><b v-if="many(one)">{{ many(one) }}</b>
              </button>
            </li>
          </ul>
          <template v-if="wear && rowed"
            ><h2>Fastest wearing</h2>
            <ol class="fastest">
              <li v-for="one in fastest" :key="one.position">
                <button type="button" @click="chosen = one.position">
                  <span>{{ one.label }}</span><span class="bar"
                    ><i :style="{ width: `${(100 * one.rate) / (fastest[0]?.rate || 1)}%` }" /></span
                  ><b>{{ figure(one.rate, 2) }}</b>
                </button>
              </li>
            </ol>
            <p class="quiet small">{{ wear.ahead.unit }} per 100 {{ wear.unit }}</p></template
          >
          <template v-if="wear"
            ><h2>Against the fleet</h2>
            <ul class="fastest">
              <li v-for="one in wear.against" :key="one.name">
                <p>
                  <span :class="{ mine: one.mine }">{{ one.name }}</span><span class="bar"
                    ><i
                      :class="{ other: !one.mine }"
                      :style="{ width: `${(100 * one.share) / (wear.against[0]?.share || 1)}%` }" /></span
                  ><b>{{ (100 * one.share).toFixed(1) }} %</b>
                </p>
              </li>
            </ul>
            <p class="quiet small">of the wear allowed, per 100 {{ wear.unit }}</p></template
          >
        </aside>
        <div v-if="wear && small" class="main">
          <div class="scroll">
            <div v-if="columns.length > 1" class="tiles" :class="{ aligned }" :style="{ '--n': columns.length }">
              <template v-for="(side, s) in sides" :key="side"
                ><span v-if="aligned" class="side-name quiet">{{
                  side === 'L' ? 'Left' : side === 'R' ? 'Right' : rowed ? 'Row' : ''
                }}</span>
                <template v-for="column in columns" :key="column[s]"
                  ><WearTile
                    v-if="column[s]"
                    :place="wear.places.find((one) => one.position === column[s])!"
                    :ahead="played.get(column[s]!) ?? places.get(column[s]!)!"
                    :at="small"
                    :limit="wear.ahead.limit"
                    :now="wear.now"
                    :chosen="chosen === column[s]"
                    :decimals="wear.ahead.decimals"
                    :unit="wear.ahead.unit"
                    :tips="tips.has(`${check} ${column[s]}`)"
                    @click="chosen = column[s]!" /><span v-else /></template
              ></template>
            </div>
            <SeasonHeat
              :seasons="wear.seasons"
              :columns="columns"
              :sides="sides"
              :unit="wear.ahead.unit"
              :counter="wear.unit"
              :decimals="wear.ahead.decimals"
              :chosen="chosen"
              :rowed="rowed"
              @go="(position) => (chosen = position)"
            />
          </div>
          <PlaceDetail
            v-if="place && places.get(chosen)"
            :place="place"
            :ahead="places.get(chosen)!"
            :wear="wear"
            :currency="base.currency"
            :other="otherPlace"
            :more="more"
            :csv="csv"
          />
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped src="./Wear.css"></style>
