<script setup lang="ts">
/** Three ways to get the list, side by side; pick one, change it line by line, and order from it. */
import Button from '@/design/controls/button'
import ProgressBar from '@/design/controls/progressbar'
import AskOnce from '@/app/AskOnce.vue'
import { weekday, when } from '@/app/words'
import PlanPicture from './PlanPicture.vue'
import SupplyTabs from './SupplyTabs.vue'
import TableFile from '@/app/TableFile.vue'
import { counted } from '@/app/counted'
import { time, type Kind } from './plan'
import { useSourcing } from './useSourcing'

const {
  plan,
  needs,
  asked,
  step,
  kind,
  pins,
  at,
  buys,
  NAMES,
  found,
  question,
  chosen,
  needed,
  lanes,
  money,
  same,
  suppliers,
  from,
  offers,
  again,
  ask,
  startAt,
  order,
  ways,
  pin,
  changed,
  count,
  placing,
} = useSourcing()
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>Sourcing</h1>
        <p v-if="needs" class="quiet">
          Planned from {{ needs.terms.now ? when(needs.terms.now) : 'now'
          }}<template v-if="plan">; worked out by {{ plan.by }}</template>
          <button v-if="needs.terms.now && buys" type="button" class="link" @click="startAt(null)">Plan from now</button>
        </p>
      </div>
      <template v-if="buys">
        <Button severity="secondary" label="Ask the suppliers" :loading="at.busy && !step" @click="ask" />
        <Button
          :severity="plan && !changed && !plan.stale.length ? 'secondary' : undefined"
          :label="!plan ? 'Work it out' : pins.size ? `Work it out with ${pins.size} set by hand` : 'Work it out again'"
          :disabled="at.busy"
          @click="again"
        />
      </template>
    </header>
    <ul v-if="asked.length" class="asked" role="status">
      <li v-for="one in asked" :key="one.who" :class="{ problem: one.trouble }">
        <b>{{ one.who }}</b>
        {{ one.trouble ? `${one.trouble} What it said last is used.` : one.said }}
      </li>
    </ul>
    <div v-if="step" role="status">
      <p>Working out {{ step.what }} …</p>
      <ProgressBar :value="Math.round((100 * step.steps) / step.of)" :show-value="false" aria-label="Progress" />
    </div>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="!plan && !at.busy && !at.reading && !at.problem" class="quiet">No plan yet.</p>
    <template v-if="plan && found && chosen && question">
      <div v-if="plan.stale.length" class="stale" role="alert">
        <b>The list has changed since.</b> {{ plan.stale.slice(0, 3).join('; ')
        }}<template v-if="plan.stale.length > 3"> and {{ plan.stale.length - 3 }} more</template>. Work it out again before
        ordering.
      </div>
      <div class="plans" role="radiogroup" aria-label="Plans">
        <label v-for="one in found.plans" :key="one.kind" class="card plan" :class="{ on: kind === one.kind }">
          <span class="tools"
            ><input v-model="kind" type="radio" name="kind" :value="one.kind" :disabled="!!plan.ordered_kind" />
            <b class="grow">{{ NAMES[one.kind] }}</b><span v-if="plan.ordered_kind === one.kind" class="quiet"
              >ordered</span
            ></span
          >
          <span class="total"
            ><b>{{ money(one.cost.total) }}</b> {{ plan.currency }}</span
          >
          <span
            ><b>{{ Math.round(one.p_all_in_time * 100) }} %</b> sure to have all in time, last
            {{ one.last_arrival ? weekday(one.last_arrival) : '–' }}</span
          >
          <PlanPicture :plan="one" :start="question.start" :suppliers="lanes" :needed="needed" />
          <span class="quiet"
            >parts {{ money(one.cost.parts) }}, trips {{ money(one.cost.trips) }}, delivery {{ money(one.cost.delivery) }}, risk
            {{ money(one.cost.risk) }}<template v-if="one.cost.late">, late {{ money(one.cost.late) }}</template>
            {{ plan.currency }}</span
          >
          <span v-if="same(one)" class="quiet">The same as {{ NAMES[same(one)!].toLowerCase() }}.</span>
          <span v-if="!one.optimal" class="warn"
            >Stopped early: at most {{ one.gap_pct.toFixed(1) }} % dearer than the best there is.</span
          >
        </label>
      </div>
      <div class="columns">
        <section class="card" aria-labelledby="why">
          <h2 id="why">Why</h2>
          <ul class="why">
            <li v-for="one in plan.why" :key="one">{{ one }}</li>
          </ul>
          <template v-if="found.impossible.length"
            ><h2>Cannot be in time</h2>
            <ul class="why">
              <li v-for="one in found.impossible" :key="one.id" class="warn">
                {{ plan.names[one.id] }} {{ one.id }}: {{ one.reason }}
              </li>
            </ul></template
          >
        </section>
        <section class="card" aria-labelledby="steps">
          <h2 id="steps">{{ NAMES[kind] }}, step by step</h2>
          <ol class="why">
            <li v-for="trip in chosen.trips" :key="trip.supplier + trip.date">
              <template v-if="trip.call_at"
                ><b>{{ weekday(trip.date) }} {{ time(trip.call_at) }}</b> call {{ trip.supplier }}. </template
              ><b
                >{{ trip.call_at ? (trip.only_if_there ? 'If they have it: ' : '') : weekday(trip.date) + ' '
                }}{{ time(trip.leave) }}</b
              >
              drive to {{ trip.supplier }}, back {{ time(trip.back) }} with {{ counted(trip.lines.length, 'part') }}:
              {{
                trip.lines
                  .slice(0, 3)
                  .map((one) => plan!.names[one])
                  .join(', ')
              }}{{ trip.lines.length > 3 ? ' …' : '' }}. {{ money(trip.cost) }} {{ plan.currency }}
              <p
                v-for="line in chosen.lines.filter((one) => trip.lines.includes(one.id) && one.if_missing)"
                :key="line.id"
                class="quiet"
              >
                If {{ plan.names[line.id] }} is not there ({{ Math.round((1 - line.p_there) * 100) }} %):
                {{ line.if_missing!.supplier }}, {{ line.if_missing!.way === 'fetch' ? 'fetched' : line.if_missing!.way }}, here
                {{ weekday(line.if_missing!.arrives) }}, {{ money(line.if_missing!.extra_cost) }} {{ plan.currency }} more
              </p>
            </li>
            <li v-for="one in chosen.deliveries" :key="one.supplier + one.way">
              <b>{{ weekday(one.arrives) }}</b> {{ one.supplier }} by {{ one.way }}, {{ counted(one.lines.length, 'part') }},
              goes out {{ weekday(one.goes_out) }}. {{ money(one.cost) }} {{ plan.currency }}
              <p
                v-for="line in chosen.lines.filter((l) => one.lines.includes(l.id) && l.if_missing)"
                :key="line.id"
                class="quiet"
              >
                If {{ plan.names[line.id] }} is not there ({{ Math.round((1 - line.p_there) * 100) }} %):
                {{ line.if_missing!.supplier }}, {{ line.if_missing!.way === 'fetch' ? 'fetched' : line.if_missing!.way }}, here
                {{ weekday(line.if_missing!.arrives) }}, {{ money(line.if_missing!.extra_cost) }} {{ plan.currency }} more
              </p>
            </li>
          </ol>
        </section>
      </div>
      <div v-if="buys && !plan.ordered_kind" class="order">
        <AskOnce
          class="go"
          :label="`Place ${counted(count, 'order')} for ${money(chosen.cost.parts)} ${plan.currency}`"
          :question="placing"
          :yes="`Order for ${money(chosen.cost.parts)} ${plan.currency}`"
          :disabled="at.busy || changed || !!plan.stale.length || !count"
          @yes="order"
        /><span v-if="changed" class="quiet">Work it out with your changes first.</span>
      </div>
      <p v-else-if="plan.ordered_kind">
        <RouterLink :to="{ name: 'orders' }"
          >Ordered as {{ NAMES[plan.ordered_kind as Kind].toLowerCase() }}: to the orders</RouterLink
        >
      </p>
      <div class="scroll">
        <table class="as-list">
          <thead>
            <tr>
              <th>Part</th>
              <th class="n">Buy</th>
              <th class="n">{{ plan.currency }}</th>
              <th>From</th>
              <th>Here</th>
              <th class="n">In time</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in chosen.lines" :key="line.id">
              <td>
                <b>{{ plan.names[line.id] }}</b> <span class="quiet">{{ line.id }}</span><span
                  v-if="line.status === 'scarce'"
                  class="warn"
                >
                  scarce</span
                >
              </td>
              <td class="n" data-label="Buy">
                <b>{{ line.quantity }}</b>
              </td>
              <td class="n" :data-label="plan.currency">{{ money(line.cost) }}</td>
              <td>
                <select
                  v-if="buys && !plan.ordered_kind"
                  :value="pins.get(line.id) ?? `${line.supplier}|${line.way}`"
                  :class="{ pinned: pins.has(line.id) }"
                  :aria-label="`Where ${plan.names[line.id]} comes from`"
                  @change="pin(line, ($event.target as HTMLSelectElement).value)"
                >
                  <option v-for="way in ways(line)" :key="way.value" :value="way.value">{{ way.label }}</option></select
                ><template v-else>{{ line.supplier }}, {{ line.way }}</template>
                <button
                  v-if="pins.has(line.id) && !plan.ordered_kind"
                  type="button"
                  class="link"
                  :aria-label="`set by hand: free it, ${plan.names[line.id]}`"
                  @click="pins.delete(line.id)"
                >
                  set by hand: free it
                </button>
              </td>
              <td data-label="Here">
                {{ weekday(line.arrives) }}<span v-if="line.late_days" class="warn"> {{ line.late_days }} d late</span>
              </td>
              <td class="n" data-label="In time">{{ Math.round(line.p_in_time * 100) }} %</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <section v-if="buys && suppliers.length" class="card" aria-labelledby="prices">
      <h2 id="prices">Prices from a file</h2>
      <p class="quiet">The parts list as CSV or XLSX, with price, stock and how sure filled in.</p>
      <label class="from"
        >From
        <select v-model.number="from">
          <option v-for="one in suppliers" :key="one.id" :value="one.id">
            {{ one.name }}<template v-if="one.hours">, {{ one.hours }}</template>
          </option>
        </select></label
      >
      <TableFile :key="from" label="File" :send="offers" />
    </section>
  </section>
</template>

<style scoped src="./Sourcing.css"></style>
