<script setup lang="ts">
/** What was changed of all that is the shop's own; what is sought stands in the address. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import ChangeTable from '@/app/ChangeTable.vue'
import ShopTabs from '@/app/ShopTabs.vue'
import { useAttempt } from '@/app/useAttempt'

const route = useRoute()
const router = useRouter()
const log = ref<Schemas['ChangesOut'] | null>(null)
const at = useAttempt('The changes could not be read.')
const text = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '')
const asked = computed(() => ({ about: text('about'), search: text('search'), page: Number(text('page')) || 0 }))
const last = computed(() => (log.value ? Math.max(Math.ceil(log.value.total / log.value.pages) - 1, 0) : 0))

watch(
  asked,
  (query) => void at.read(async () => void (log.value = await answer(api.GET('/api/shop/changes', { params: { query } })))),
  { immediate: true },
)
function ask(change: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, page: undefined, ...change } })
}
</script>

<template>
  <ShopTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Changes</h1>
      <select
        aria-label="About"
        :value="asked.about"
        @change="ask({ about: ($event.target as HTMLSelectElement).value || undefined })"
      >
        <option value="">Everything</option>
        <option v-for="(name, key) in log?.about" :key="key" :value="key">{{ name }}</option>
      </select>
      <InputText
        :model-value="asked.search"
        aria-label="Find a change"
        placeholder="Find a change"
        maxlength="80"
        @update:model-value="(words) => ask({ search: words || undefined })"
      />
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-else-if="!log" class="quiet" role="status">Reading the changes …</p>
    <template v-if="log">
      <ChangeTable :changes="log.changes">{{
        asked.search || asked.about ? 'Nothing like that was changed.' : 'Nothing has been changed yet.'
      }}</ChangeTable>
      <div v-if="last" class="tools">
        <Button severity="secondary" label="Newer" :disabled="asked.page <= 0" @click="ask({ page: String(asked.page - 1) })" />
        <span>Page {{ asked.page + 1 }} of {{ last + 1 }}, {{ counted(log.total, 'change') }}</span>
        <Button
          severity="secondary"
          label="Older"
          :disabled="asked.page >= last"
          @click="ask({ page: String(asked.page + 1) })"
        />
      </div>
    </template>
  </section>
</template>
