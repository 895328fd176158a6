<script setup lang="ts">
/** One place in full: what is expected of it, what waiting costs, its plot, and the table beside it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { date } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import { ADVICE, figure, money, percent, type Place, type Wear } from './figures'
import WearPlot from './WearPlot.vue'

const props = defineProps<{
  place: Wear
  ahead: Place
  wear: Schemas['WearOut']
  currency: string
  other?: { end: number; place: Place } | undefined
  more: number
  csv: string
}>()
const shown = (value: number): string => figure(value, props.wear.ahead.decimals)
const newestFirst = computed(() => [...props.place.readings].reverse())
</script>

<template>
  <article class="detail" :aria-label="place.label">
    <div class="plot">
      <header>
        <h2>{{ place.label }}<span v-if="place.wheels" class="quiet"> behind the wheels</span></h2>
        <SeverityMark :severity="ahead.state" :size="18" />
      </header>
      <p class="says">
        Estimated <b>{{ shown(ahead.now) }} {{ wear.ahead.unit }}</b> now<span v-if="newestFirst[0]" class="quiet">{{
          ` (read last: ${shown(newestFirst[0].value)} ${wear.ahead.unit})`
        }}</span
        >, <b>{{ shown(ahead.value) }} {{ wear.ahead.unit }}</b> by the end of the season
        <span class="quiet">({{ shown(ahead.low) }} to {{ shown(ahead.high) }} {{ wear.ahead.unit }}, nine times of ten)</span>.
        That it reaches {{ shown(wear.ahead.limit) }} {{ wear.ahead.unit }}: <b>{{ ahead.chance }}, {{ percent(ahead.p) }}</b
        >.
        <span v-if="other" class="other"
          >With {{ more > 0 ? '+' : '−' }}{{ Math.abs(more) }} %: {{ shown(other.place.value) }} {{ wear.ahead.unit }},
          {{ other.place.chance }}, {{ percent(other.place.p) }}.</span
        >
      </p>
      <WearPlot
        :place="place"
        :ahead="ahead"
        :fresh="wear.ahead.new"
        :limit="wear.ahead.limit"
        :unit="wear.ahead.unit"
        :decimals="wear.ahead.decimals"
        :now="wear.now"
        :end="wear.end"
        :counter="wear.unit"
        :other="other"
      />
    </div>
    <div class="facts">
      <p v-for="mark in ahead.marked" :key="mark" class="marked">{{ mark }}</p>
      <dl>
        <div>
          <dt>Wears</dt>
          <dd>
            {{ figure(ahead.rate, 2) }} ± {{ figure(ahead.rate_sd, 2) }} {{ wear.ahead.unit }} per 100 {{ wear.unit
            }}<template v-if="ahead.faster">, <b>faster than the rest</b></template>
          </dd>
        </div>
        <template v-if="wear.ahead.safety"
          ><div>
            <dt>Cost</dt>
            <dd>A safety item: never weighed against money.</dd>
          </div></template
        >
        <template v-else-if="ahead.cost_wait !== null">
          <div>
            <dt>Waiting risks</dt>
            <dd>{{ money(ahead.cost_wait, currency) }} <span class="quiet">this season</span></dd>
          </div>
          <div v-if="ahead.cost_now !== null">
            <dt>Renewing now</dt>
            <dd>{{ money(ahead.cost_now, currency) }} <span class="quiet">of life thrown away</span></dd>
          </div>
          <div v-if="ahead.break_even !== null">
            <dt>Pays from</dt>
            <dd>a chance of {{ percent(ahead.break_even) }}; it is {{ percent(ahead.p) }}</dd>
          </div>
          <div v-if="ahead.advice">
            <dt>By the figures</dt>
            <dd>
              <b>{{ ADVICE[ahead.advice] }}</b>
            </dd>
          </div>
          <div v-else>
            <dt>Price</dt>
            <dd>{{ ahead.number ? `${ahead.number} has none yet` : 'no part number yet' }}</dd>
          </div>
        </template>
        <div>
          <dt>Rests on</dt>
          <dd>
            {{ ahead.rests_on }} Seasons differ by {{ Math.round(100 * wear.ahead.season_share) }} %<template
              v-if="wear.ahead.seasons"
              >, learnt from its own</template
            >.
          </dd>
        </div>
      </dl>
      <table>
        <caption class="unseen">
          Readings of
          {{
            place.label
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">Read</th>
            <th scope="col" class="n">{{ wear.unit }}</th>
            <th scope="col" class="n">{{ wear.ahead.unit }}</th>
            <th scope="col">By</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, i) in newestFirst" :key="i" :class="{ past: one.past }">
            <td>{{ date(one.at) }}</td>
            <td class="n">{{ one.counter === null ? '–' : Math.round(one.counter) }}</td>
            <td class="n">
              <b>{{ shown(one.value) }}</b>
            </td>
            <td>
              {{ one.by }}<small v-if="one.doubted" class="doubt">does not fit</small
              ><small v-else-if="one.past">part before</small>
            </td>
          </tr>
        </tbody>
      </table>
      <p><a :href="csv">All places as CSV</a></p>
    </div>
  </article>
</template>

<style scoped>
.detail {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 20px;
  padding: 12px 16px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.plot,
.facts {
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
}
h2 .quiet {
  font-weight: 400;
  font-size: 1rem;
}
.says {
  line-height: 1.3;
}
.other {
  color: var(--watch);
  font-weight: 600;
}
dl,
dd {
  margin: 0;
}
dl {
  display: grid;
  gap: 3px;
}
dl div {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 8px;
  line-height: 1.25;
}
dt {
  color: var(--quiet);
}
.marked {
  padding: 6px 10px;
  border-left: 4px solid var(--stop);
  background: var(--sunk);
  border-radius: 4px;
  line-height: 1.25;
}
.facts table {
  border: 0;
}
.facts th,
.facts td {
  padding: 3px 6px;
}
.past td {
  color: var(--quiet);
}
.doubt {
  color: var(--stop) !important;
  font-weight: 600;
}
@media (max-width: 1000px) {
  .detail {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px 12px;
  }
}
</style>
