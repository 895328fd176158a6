<script setup lang="ts">
/** The drive line of the machine's model: speeds by range and orders of each shaft, as the manual has them once a lead wrote it. */
import { reactive, ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import { figure, figureIfTyped, whole } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ found: Schemas['RecordingsOut']; machine: number }>()
const emit = defineEmits<{ changed: [found: Schemas['RecordingsOut']] }>()
const at = useAttempt('That could not be kept.')
const post = usePost()
const changing = ref('')
/** One version until it is kept: pressed again it is the same. */
const uuid = ref(newUuid())
/** Sizes of a bearing as they are typed, in the order of their fields. */
const SIZES = { balls: 'balls', ball_mm: 'ball, mm', pitch_mm: 'circle of their centres, mm', angle_deg: 'angle, °' } as const
type Sizes = Record<keyof typeof SIZES | 'name', string>
const typed = reactive({ speeds: {} as Record<string, string>, orders: '', source: '', bearings: [] as Sizes[] })
function change(one: Schemas['ShaftOut']): void {
  changing.value = one.key
  typed.speeds = Object.fromEntries(Object.entries(one.speeds).map(([name, rpm]) => [name, String(rpm)]))
  typed.orders = Object.entries(one.orders)
    .map(([order, what]) => `${order} ${what}`)
    .join(', ')
  typed.source = one.own ? one.source : ''
  typed.bearings = one.bearings.map((bearing) => ({
    name: bearing.name,
    balls: String(bearing.balls),
    ball_mm: String(bearing.ball_mm),
    pitch_mm: String(bearing.pitch_mm),
    angle_deg: String(bearing.angle_deg),
  }))
}
/** `1 turn, 6 blades` as orders. */
const ordersOf = (text: string): Record<string, string> =>
  Object.fromEntries(
    text
      .split(',')
      .map((part) => part.trim().split(/\s+(.*)/, 2) as [string, string?])
      .filter(([order]) => order)
      .map(([order, what]) => [order, what ?? '']),
  )
const keep = (): Promise<boolean> =>
  at.run(async () => {
    const speeds = Object.fromEntries(
      Object.entries(typed.speeds).map(([name, text]) => [name, figure(text, `speeds.${name}`)]),
    )
    const bearings = typed.bearings.map((one, i) => ({
      name: one.name,
      balls: whole(one.balls, `bearings.${i}.balls`),
      ball_mm: figure(one.ball_mm, `bearings.${i}.ball_mm`),
      pitch_mm: figure(one.pitch_mm, `bearings.${i}.pitch_mm`),
      angle_deg: figureIfTyped(one.angle_deg, `bearings.${i}.angle_deg`) ?? 0,
    }))
    const body = {
      uuid: uuid.value,
      key: changing.value,
      speeds,
      orders: ordersOf(typed.orders),
      bearings,
      source: typed.source,
    }
    emit(
      'changed',
      await post('/api/faults/machines/{machine_id}/shafts', { machine_id: props.machine }, body, {
        what: 'Shaft',
        machine: props.found.machine.name,
      }),
    )
    changing.value = ''
    uuid.value = newUuid()
  })
const takeBack = (model_shaft_id: string): Promise<boolean> =>
  at.run(async () =>
    emit(
      'changed',
      await post(
        '/api/faults/machines/{machine_id}/shafts/{model_shaft_id}/take-back',
        { machine_id: props.machine, model_shaft_id },
        undefined as never,
        { what: 'Shaft as before', machine: props.found.machine.name },
      ),
    ),
  )
const shown = (values: Record<string, number>): string =>
  Object.entries(values)
    .map(([name, rpm]) => (name === 'fixed' ? `${rpm} rpm` : `${name} ${rpm} rpm`))
    .join(', ')
</script>

<template>
  <section class="card" aria-labelledby="shafts">
    <h2 id="shafts">What turns, with the engine at {{ found.engine_rpm }} rpm</h2>
    <ul>
      <li v-for="one in found.shafts" :key="one.key">
        <span class="grow"
          ><b>{{ one.name }}</b
          ><small class="quiet"
            >{{
              Object.entries(one.orders)
                .map(([order, what]) => `${order} × ${what}`)
                .join(', ')
            }}; {{ one.source }}{{ one.follows ? '' : '; does not follow the engine' }}</small
          ></span
        >
        <span>{{ shown(one.speeds) }}</span>
        <AskOnce
          v-if="one.own && found.may_change && changing !== one.key"
          plain
          label="As before"
          :named="`${one.name} as before`"
          question="It turns as it did before this was written."
          yes="As before"
          :disabled="at.busy"
          @yes="takeBack(one.own)"
        />
        <button v-if="found.may_change && changing !== one.key" type="button" class="link" @click="change(one)">
          Change<span class="unseen"> {{ one.name }}</span>
        </button>
        <form v-if="changing === one.key" class="tools" :aria-label="`Change ${one.name}`" @submit.prevent="keep">
          <label v-for="(_, name) in one.speeds" :key="name"
            >{{ name === 'fixed' ? 'Speed' : name }}
            <InputText
              v-model="typed.speeds[name]"
              inputmode="decimal"
              maxlength="7"
              class="rpm"
              :invalid="at.field === `speeds.${name}`"
            />
            rpm</label
          >
          <label>Orders <InputText v-model="typed.orders" maxlength="200" :invalid="at.field === 'orders'" /></label>
          <label>As says <InputText v-model="typed.source" maxlength="120" placeholder="manual, 7-12" /></label>
          <fieldset v-for="(bearing, i) in typed.bearings" :key="i" class="tools">
            <legend>Bearing</legend>
            <label>called <InputText v-model="bearing.name" maxlength="60" /></label>
            <label v-for="(name, size) in SIZES" :key="size"
              >{{ name }}
              <InputText
                v-model="bearing[size]"
                inputmode="decimal"
                maxlength="7"
                class="rpm"
                :invalid="at.field === `bearings.${i}.${size}`"
            /></label>
            <button type="button" class="link" @click="typed.bearings.splice(i, 1)">Without it</button>
          </fieldset>
          <button
            v-if="typed.bearings.length < 4"
            type="button"
            class="link"
            @click="typed.bearings.push({ name: '', balls: '', ball_mm: '', pitch_mm: '', angle_deg: '0' })"
          >
            A bearing of known size
          </button>
          <Button type="submit" label="Keep" :disabled="at.busy" />
          <button type="button" class="link" @click="changing = ''">Leave it</button>
          <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
        </form>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
li:first-child {
  border-top: 0;
}
.grow {
  flex: 1 1 240px;
}
small {
  display: block;
}
form {
  flex: 1 1 100%;
}
.rpm {
  width: 90px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  flex: 1 1 100%;
}
legend {
  font-weight: 600;
}
</style>
