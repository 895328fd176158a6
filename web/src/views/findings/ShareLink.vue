<script setup lang="ts">
/** The findings in plain words for whoever pays: a link that ends by itself and needs no account. */
import Button from '@/design/controls/button'
import { onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { useAttempt } from '@/app/useAttempt'
import { date } from '@/app/words'

const props = defineProps<{ id: string }>()
const path = { params: { path: { walk_around_id: props.id } } }
const links = ref<Schemas['LinkOut'][]>([])
const made = ref('')
const days = ref(14)
const at = useAttempt()
/** One UUID a link until it is answered: asked for again, it is the same. */
let uuid = newUuid()

async function load(): Promise<void> {
  links.value = await answer(api.GET('/api/walk-arounds/{walk_around_id}/links', path))
}
onMounted(() => at.read(load))

const share = (): Promise<boolean> =>
  at.run(async () => {
    const body = { uuid, days: days.value }
    const link = await write(() => api.POST('/api/walk-arounds/{walk_around_id}/links', { ...path, body }))
    uuid = newUuid()
    made.value = new URL(link.path, location.href).href
    void at.read(load)
  })
const revoke = (link: number): Promise<boolean> =>
  at.run(async () => {
    const params = { path: { walk_around_id: props.id, link_id: link } }
    links.value = await write(() => api.POST('/api/walk-arounds/{walk_around_id}/links/{link_id}/revoke', { params }))
    made.value = ''
  })
const copy = () => navigator.clipboard?.writeText(made.value)
</script>

<template>
  <section class="share" aria-labelledby="share">
    <h2 id="share">For the owner</h2>
    <p><a :href="`/walk-arounds/${id}/owner`">In plain words, with what each choice risks</a></p>
    <form @submit.prevent="share">
      <label>A link without an account, for <WholeNumber v-model="days" :invalid="at.field === 'days'" /> days</label>
      <Button type="submit" severity="secondary" label="Make a link" :disabled="at.busy" />
    </form>
    <p v-if="made" class="made" role="status">
      <a :href="made">{{ made }}</a> <Button size="small" severity="secondary" label="Copy" @click="copy" />
      <span class="quiet">Shown once. Whoever has it can read this one report.</span>
    </p>
    <p v-for="link in links" :key="link.id" class="quiet">
      A link by {{ link.made_by }} works until {{ date(link.expires_at) }}.
      <AskOnce
        plain
        label="End it now"
        question="Whoever has this link can read the report no more. A new one can be made."
        yes="End the link"
        @yes="revoke(link.id)"
      />
    </p>
    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
  </section>
</template>

<style scoped>
.share {
  display: grid;
  gap: 4px;
  padding: 10px 16px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.share :deep(.p-button) {
  min-height: var(--target);
}
.made {
  overflow-wrap: anywhere;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
