<script setup lang="ts">
/** A model copied, given to another shop, and one of another shop's read in. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { reactive, ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import Field from '@/app/Field.vue'
import { counted } from '@/app/counted'
import TableFile from '@/app/TableFile.vue'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ model: Schemas['ModelRulesOut']; mayChange: boolean }>()
const emit = defineEmits<{ taken: [model?: number] }>()
const doing = ref<'' | 'copy' | 'read'>('')
const copying = useAttempt('It could not be copied.')
const typed = reactive({ uuid: newUuid(), maker: '', name: '' })
function begin(): void {
  Object.assign(typed, { uuid: newUuid(), maker: '', name: '' })
  doing.value = 'copy'
}
const copy = (): Promise<boolean> =>
  copying.run(async () => {
    const params = { path: { model_id: props.model.model.id } }
    const made = await write(() => api.POST('/api/rules/models/{model_id}/copies', { params, body: { ...typed } }))
    doing.value = ''
    emit('taken', made.id)
  })
const sendFile = (form: FormData): Promise<Schemas['TableReportOut']> =>
  write(() => api.POST('/api/rules/models/file', { body: form as never, bodySerializer: (body) => body as never }))
</script>

<template>
  <p class="quiet">
    {{ model.machines.length ? `In use: ${model.machines.join(', ')}` : 'No machine of this model in use.' }}
    <template v-if="model.own.length"> · Own checks: {{ model.own.join(', ') }}</template>
  </p>
  <div v-if="mayChange" class="edit">
    <Button size="small" severity="secondary" label="Copy this model" @click="begin" />
    <a :href="`/models/${model.model.id}.yaml`">Give it to another shop (YAML)</a>
    <Button v-if="!doing" size="small" text severity="secondary" label="Read one in" @click="doing = 'read'" />
  </div>
  <form v-if="doing === 'copy'" class="edit copy" novalidate @submit.prevent="copy">
    <Field label="Maker" name="maker" :at="copying"><InputText v-model="typed.maker" v-focus maxlength="60" /></Field>
    <Field label="Model" hint="how the new one is called" name="name" :at="copying"
      ><InputText v-model="typed.name" maxlength="60"
    /></Field>
    <Button type="submit" label="Copy" :disabled="copying.busy" />
    <Button text severity="secondary" label="Cancel" data-out @click="doing = ''" />
    <p v-if="copying.problem && !['maker', 'name'].includes(copying.field)" class="problem" role="alert">
      {{ copying.problem }}
    </p>
  </form>
  <form v-if="doing === 'read'" @submit.prevent>
    <p class="quiet">A model as another shop gave it out. What it would change is shown before anything is taken.</p>
    <TableFile
      label="Read a model from a file"
      accept=".yaml,.yml"
      tell
      :named="(count) => counted(count, 'change')"
      :send="sendFile"
      @taken="emit('taken')"
    />
    <Button text severity="secondary" label="Close" data-out @click="doing = ''" />
  </form>
</template>

<style scoped src="./Rules.css"></style>
