<script setup lang="ts">
/** Begin a swap test: the row with the fault, a row that runs, and the numbers of their parts where somebody can read them. */
import { ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import ScanButton from '@/app/ScanButton.vue'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'

const props = defineProps<{ id: string; machine: string; rows: number; slots: Schemas['KeyNameOut'][] }>()
const at = useAttempt('That could not be kept.')
const post = usePost()
const onward = useOnward()
const session = useSession()
const empty = () => ({ uuid: newUuid(), faulty: '', sound: '', parts: {} as Record<string, Record<string, string>> })
/** What is being typed, kept until the server has it. */
const { draft: said, forget } = useDraft(`lumvek:swap:${session.me?.id}:${props.id}`, empty, (one) => !!one.faulty)
const numbers = ref(Object.keys(said.parts).length > 0)
const text = (row: string, slot: string): string => said.parts[row]?.[slot] ?? ''
const type = (row: string, slot: string, value: string): void => void ((said.parts[row] ??= {})[slot] = value)
/** A scanner ends each number with Enter: the next one is typed, the test does not begin. */
function nextField(pressed: KeyboardEvent): void {
  const field = pressed.target as HTMLInputElement
  const fields = [...field.form!.querySelectorAll<HTMLElement>('.numbers input')]
  const next = fields[fields.indexOf(field) + 1] ?? field.form!.querySelector<HTMLElement>('button[type=submit]')
  next?.focus()
}
const begin = (): Promise<boolean> =>
  at.run(async () => {
    const rows = [said.faulty.trim(), said.sound.trim()]
    const typed = Object.fromEntries(rows.filter((row) => said.parts[row]).map((row) => [row, { ...said.parts[row] }]))
    await post(
      '/api/faults/machines/{machine_id}/swap-tests',
      { machine_id: Number(props.id) },
      { uuid: said.uuid, rows, parts: typed },
      { what: 'Swap test', machine: props.machine },
    )
    const test = said.uuid
    forget()
    await onward({ name: 'swap-test', params: { id: props.id, test } })
  })
</script>

<template>
  <form class="card" data-kept aria-labelledby="swap" @submit.prevent="begin">
    <h2 id="swap">A row reports a fault: swap test</h2>
    <div class="tools">
      <label
        >Row with the fault
        <InputText v-model="said.faulty" inputmode="numeric" maxlength="2" :invalid="at.field === 'rows.0'" class="row"
      /></label>
      <label
        >A row that runs
        <InputText v-model="said.sound" inputmode="numeric" maxlength="2" :invalid="at.field === 'rows.1'" class="row"
      /></label>
      <button type="button" class="link" :aria-expanded="numbers" @click="numbers = !numbers">
        {{ numbers ? 'Without numbers' : 'Numbers of the parts' }}
      </button>
      <Button type="submit" severity="secondary" label="Begin the swap test" :disabled="at.busy" />
    </div>
    <div v-if="numbers" class="numbers">
      <fieldset v-for="row in [said.faulty, said.sound].filter(Boolean)" :key="row" class="tools">
        <legend>Row {{ row }}</legend>
        <span v-for="one in slots" :key="one.key" class="number">
          <label
            >{{ one.name }}
            <InputText
              :model-value="text(row, one.key)"
              maxlength="40"
              :aria-label="`Row ${row}: ${one.name}`"
              :invalid="at.field === `parts.${row}.${one.key}`"
              @update:model-value="type(row, one.key, $event ?? '')"
              @keydown.enter.prevent="nextField"
          /></label>
          <ScanButton :label="`row ${row}, ${one.name}`" @scanned="(number) => type(row, one.key, number)" />
        </span>
      </fieldset>
      <p class="quiet">
        Typed or scanned once: from then on each is followed by its place. Left empty, it is called after its row.
      </p>
    </div>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
  </form>
</template>

<style scoped>
.row {
  width: 80px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 8px 0;
}
.number {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
legend {
  font-weight: 600;
}
</style>
