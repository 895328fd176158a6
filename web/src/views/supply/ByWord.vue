<script setup lang="ts">
/** A part that was ordered by word, or bought over the counter: where, how many, and what was said of price and day. */
import { reactive } from 'vue'
import type { Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import WholeNumber from '@/app/WholeNumber.vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { BY_WORD } from './ways'

const props = defineProps<{
  line: Schemas['NeededLine']
  suppliers: string[]
  currency: string
  busy: boolean
  /** The field that was refused, and why. */
  field: string
  problem: string
}>()
const emit = defineEmits<{ order: [body: Schemas['ByWordIn']]; leave: [] }>()
const said = reactive({
  uuid: newUuid(),
  number: props.line.number,
  supplier: '',
  way: 'telephone' as Schemas['ByWordIn']['way'],
  quantity: props.line.order || props.line.net || 1,
  price: '',
  promised: '',
  here: false,
})
const order = (): void => emit('order', { ...said, promised: said.promised || null })
</script>

<template>
  <form class="word" :aria-label="`Ordered: ${line.name}`" @submit.prevent="order">
    <label
      >From
      <InputText
        v-model="said.supplier"
        v-focus
        maxlength="60"
        required
        list="suppliers-known"
        :invalid="field === 'supplier'" /><datalist id="suppliers-known">
        <option v-for="name in suppliers" :key="name" :value="name" /></datalist
    ></label>
    <label
      >How
      <select v-model="said.way">
        <option v-for="(name, key) in BY_WORD" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label>Pieces <WholeNumber v-model="said.quantity" :invalid="field === 'quantity'" /></label>
    <label
      >Price of one, {{ currency }}
      <InputText v-model="said.price" maxlength="20" inputmode="decimal" placeholder="if known" :invalid="field === 'price'"
    /></label>
    <label v-if="!said.here">Promised for <input v-model="said.promised" type="date" /></label>
    <label class="here"><input v-model="said.here" type="checkbox" /> It is here already</label>
    <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
    <div class="acts">
      <Button type="submit" :label="said.here ? 'Take it in' : 'Ordered'" :disabled="busy" />
      <Button type="button" severity="secondary" label="Leave it" data-out @click="emit('leave')" />
    </div>
  </form>
</template>

<style scoped>
.word {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: end;
  padding: 8px 0;
}
label {
  display: grid;
  gap: 2px;
}
.here {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
