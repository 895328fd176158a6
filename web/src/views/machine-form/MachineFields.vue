<script setup lang="ts">
/** What one machine is: its name and number, rows, sizes on the road, the day it is needed, whose it is. */
import InputText from '@/design/controls/inputtext'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import type { Attempt } from '@/app/useAttempt'
import RowPick from './RowPick.vue'

const props = defineProps<{
  at: Attempt
  hasRows: boolean
  isHeader: boolean
  owners: Schemas['NamedOut'][]
  combines: Schemas['NamedOut'][]
  disabled?: boolean
}>()
const CALLED = [
  { key: 'name', label: 'Name', hint: 'as you call it here', most: 80 },
  { key: 'serial', label: 'Serial number', hint: 'from the plate', most: 60 },
] as const
const LENGTHS = [
  { key: 'row_spacing', label: 'Row spacing', hint: '500 mm, 20 in', most: 20 },
  { key: 'folded_width', label: 'Width folded', hint: '5.9 m; for the door', most: 20 },
  { key: 'folded_height', label: 'Height folded', hint: '3.8 m', most: 20 },
] as const
const lengths = computed(() => LENGTHS.filter((one) => props.hasRows || one.key !== 'row_spacing'))
const machine = defineModel<Schemas['ParticularsIn']>({ required: true })

function toggle(list: 'owners' | 'goes_with', one: number): void {
  const had = machine.value[list] ?? []
  machine.value = { ...machine.value, [list]: had.includes(one) ? had.filter((other) => other !== one) : [...had, one] }
}
/** None while what is typed is no number. */
const rows = computed(() => (typeof machine.value.rows === 'number' ? machine.value.rows : 0))
const set = (change: Partial<Schemas['ParticularsIn']>): void => void (machine.value = { ...machine.value, ...change })
</script>

<template>
  <fieldset class="fields" :disabled="disabled">
    <Field v-for="one in CALLED" :key="one.key" :label="one.label" :hint="one.hint" :name="`machine.${one.key}`" :at="at">
      <InputText
        :model-value="machine[one.key]"
        :maxlength="one.most"
        @update:model-value="(text) => set({ [one.key]: String(text ?? '') })"
      />
    </Field>
    <Field v-if="hasRows" label="Rows" name="machine.rows" :at="at">
      <WholeNumber :model-value="machine.rows ?? null" @update:model-value="(many) => set({ rows: many! })" />
    </Field>
    <Field label="Needed from" hint="season date" name="machine.season_date" :at="at">
      <input
        type="date"
        :value="machine.season_date ?? ''"
        @input="set({ season_date: ($event.target as HTMLInputElement).value || null })"
      />
    </Field>
    <Field label="When it is late" hint="for the work plan" name="machine.priority" :at="at">
      <select
        :value="machine.priority"
        @change="set({ priority: Number(($event.target as HTMLSelectElement).value) as 1 | 2 | 4 })"
      >
        <option :value="1">as bad as any</option>
        <option :value="2">twice as bad</option>
        <option :value="4">four times as bad</option>
      </select>
    </Field>
    <Field v-for="one in lengths" :key="one.key" :label="one.label" :hint="one.hint" :name="`machine.${one.key}`" :at="at">
      <InputText
        :model-value="machine[one.key]"
        :maxlength="one.most"
        @update:model-value="(text) => set({ [one.key]: String(text ?? '') })"
      />
    </Field>
    <slot />
  </fieldset>
  <div v-if="hasRows && !isHeader && rows" class="part">
    <b>Rows behind the wheels</b>
    <p class="quiet">Pick those that run in the tractor’s track: they wear otherwise than the rest.</p>
    <RowPick
      :model-value="machine.track_rows ?? []"
      :rows="rows"
      :disabled="disabled"
      @update:model-value="(tracks) => set({ track_rows: tracks })"
    />
    <p v-if="at.field === 'machine.track_rows'" class="problem" role="alert">{{ at.problem }}</p>
  </div>
  <fieldset v-if="isHeader && combines.length" class="part" :disabled="disabled">
    <legend>Goes with</legend>
    <label v-for="one in combines" :key="one.id" class="tick"
      ><input type="checkbox" :checked="machine.goes_with?.includes(one.id)" @change="toggle('goes_with', one.id)" />
      {{ one.name }}</label
    >
  </fieldset>
  <fieldset v-if="owners.length" class="part" :disabled="disabled">
    <legend>Whose it is</legend>
    <label v-for="one in owners" :key="one.id" class="tick"
      ><input type="checkbox" :checked="machine.owners?.includes(one.id)" @change="toggle('owners', one.id)" />
      {{ one.name }}</label
    >
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: 12px 16px;
}
.fields :deep(input) {
  width: 100%;
  min-height: var(--target);
}
.part {
  display: grid;
  gap: 6px;
}
fieldset.part {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
legend {
  font-weight: 600;
  padding: 0;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
