<script setup lang="ts">
/** What was changed of all that is the shop's own; what is sought stands in the address. */
import InputText from '@/design/controls/inputtext'
import { ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ChangeTable from '@/app/ChangeTable.vue'
import Pager from '@/app/Pager.vue'
import ShopTabs from '@/app/ShopTabs.vue'
import { useAsked } from '@/app/useAsked'
import { useAttempt } from '@/app/useAttempt'

const { asked, query } = useAsked('about', 'search')
const log = ref<Schemas['ChangesOut'] | null>(null)
const at = useAttempt('The changes could not be read.')
watch(
  query,
  () =>
    void at.read(async () => void (log.value = await answer(api.GET('/api/shop/changes', { params: { query: query.value } })))),
  { immediate: true },
)
</script>

<template>
  <ShopTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Changes</h1>
      <select aria-label="About" v-model="asked.about">
        <option value="">Everything</option>
        <option v-for="(name, key) in log?.about" :key="key" :value="key">{{ name }}</option>
      </select>
      <InputText v-model="asked.search" aria-label="Find a change" placeholder="Find a change" maxlength="80" />
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-else-if="!log" class="quiet" role="status">Reading the changes …</p>
    <template v-if="log">
      <ChangeTable :changes="log.changes">{{
        asked.search || asked.about ? 'Nothing like that was changed.' : 'Nothing has been changed yet.'
      }}</ChangeTable>
      <Pager v-model="asked.page" :page="log.page" one="change" before="Newer" after="Older" />
    </template>
  </section>
</template>
