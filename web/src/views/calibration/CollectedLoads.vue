<script setup lang="ts">
/** Loads collected now, weighed later: what the machine told, what scale and grain store found. */
import { reactive, ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import type { Attempt } from '@/app/useAttempt'
import { moment } from '@/app/words'
import { LOAD_FIELDS, type TypedLoad, type TypedWeight } from './run'

const props = defineProps<{ loads: Schemas['CollectedLoadOut'][]; may: boolean; at: Attempt }>()
const emit = defineEmits<{
  collect: [load: TypedLoad]
  weigh: [uuid: string, figures: TypedWeight]
  takeBack: [uuid: string]
}>()
const blank = (): TypedLoad => ({ name: '', crop: '', flow: 'normal', machine_kg: '', shown_pct: '' })
const load = reactive(blank())
const found = reactive<Record<string, TypedWeight>>({})
const of = (uuid: string): TypedWeight => (found[uuid] ??= { scale_kg: '', reference_pct: '' })
/** The load that was sent last; empty: a new one. */
const sent = ref('')
function collect(): void {
  sent.value = ''
  emit('collect', { ...load })
}
function weigh(uuid: string): void {
  sent.value = uuid
  emit('weigh', uuid, { ...of(uuid) })
}
const wrong = (uuid: string, field = props.at.field): boolean =>
  !!props.at.problem && sent.value === uuid && field === props.at.field && LOAD_FIELDS.includes(field)
/** What was typed stands until it is kept; what was typed meanwhile stands on. */
defineExpose({
  clear: (kept: { name?: string }) => {
    if (kept.name === load.name) Object.assign(load, blank())
  },
})
/** What is known of a load, each figure with its unit. */
const figuresOf = (one: Schemas['CollectedLoadOut']): string =>
  [
    one.machine_kg !== null && `machine ${one.machine_kg} kg`,
    one.scale_kg !== null && `scale ${one.scale_kg} kg`,
    one.shown_pct !== null && `shown ${one.shown_pct} %`,
    one.reference_pct !== null && `store ${one.reference_pct} %`,
  ]
    .filter(Boolean)
    .join(', ')
const open = (one: Schemas['CollectedLoadOut']): boolean => props.may && (one.scale_kg === null || one.reference_pct === null)
</script>

<template>
  <section class="card" aria-labelledby="loads">
    <h2 id="loads">Loads for yield and moisture</h2>
    <ul class="rows">
      <li v-for="one in loads" :key="one.uuid">
        <span class="grow"
          ><b>{{ one.name || 'Load' }}</b
          >{{ one.crop ? `, ${one.crop}` : '' }}{{ one.flow === 'low' ? ', low flow' : '' }}:
          {{ figuresOf(one) }}
          <small class="quiet">{{ moment(one.at) }}, {{ one.by }}</small></span
        >
        <form
          v-if="open(one)"
          class="tools"
          :aria-label="`What was found of ${one.name || 'the load'}`"
          @submit.prevent="weigh(one.uuid)"
        >
          <label v-if="one.scale_kg === null && one.machine_kg !== null"
            >Scale
            <InputText
              v-model="of(one.uuid).scale_kg"
              inputmode="decimal"
              maxlength="20"
              class="figure"
              :invalid="wrong(one.uuid, 'scale_kg')"
            />
            kg</label
          >
          <label v-if="one.reference_pct === null && one.shown_pct !== null"
            >Store
            <InputText
              v-model="of(one.uuid).reference_pct"
              inputmode="decimal"
              maxlength="20"
              class="figure"
              :invalid="wrong(one.uuid, 'reference_pct')"
            />
            %</label
          >
          <Button type="submit" severity="secondary" label="Keep" :disabled="at.busy" />
          <p v-if="wrong(one.uuid)" class="trouble" role="alert">{{ at.problem }}</p>
        </form>
        <button v-if="may" type="button" class="link" @click="emit('takeBack', one.uuid)">Take back</button>
      </li>
    </ul>
    <form v-if="may" class="tools" aria-label="Collect a load" @submit.prevent="collect">
      <label>Field or trailer <InputText v-model="load.name" maxlength="60" /></label>
      <label
        >Machine
        <InputText
          v-model="load.machine_kg"
          inputmode="decimal"
          maxlength="20"
          class="figure"
          :invalid="wrong('', 'machine_kg')"
        />
        kg</label
      >
      <label
        >shown
        <InputText
          v-model="load.shown_pct"
          inputmode="decimal"
          maxlength="20"
          class="figure"
          :invalid="wrong('', 'shown_pct')"
        />
        %</label
      >
      <label
        >Flow
        <select v-model="load.flow">
          <option value="normal">normal</option>
          <option value="low">low</option>
        </select></label
      >
      <Button type="submit" severity="secondary" label="Collect" :disabled="at.busy" />
    </form>
    <p v-if="wrong('')" class="trouble" role="alert">{{ at.problem }}</p>
  </section>
</template>

<style scoped>
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
}
.rows li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.rows .grow {
  flex: 1 1 280px;
}
small {
  display: block;
}
.figure {
  width: 96px;
}
</style>
