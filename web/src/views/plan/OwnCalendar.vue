<script setup lang="ts">
/** One's own work in one's own calendar: an address that only a calendar needs, or a file. */
import { computed, onMounted, ref } from 'vue'
import Button from '@/design/controls/button'
import AskOnce from '@/app/AskOnce.vue'
import CopyLink from '@/app/CopyLink.vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { date, moment } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'

const feed = ref<Schemas['FeedOut'] | null>(null)
const at = useAttempt()
onMounted(() => at.read(async () => void (feed.value = await answer(api.GET('/api/season/feed')))))
const ended = computed(() => !!feed.value?.ends_at && feed.value.ends_at < new Date().toISOString())
/** Asked again after a lost answer it is the same address. */
let uuid = newUuid()
const make = (): Promise<boolean> =>
  at.run(async () => {
    feed.value = await write(() => api.POST('/api/season/feed', { body: { uuid } }))
    uuid = newUuid()
  })
const end = (): Promise<boolean> => at.run(async () => void (feed.value = await write(() => api.POST('/api/season/feed/end'))))
</script>

<template>
  <section class="card" aria-labelledby="calendar">
    <h2 id="calendar">In your own calendar</h2>
    <p v-if="feed?.path">
      <CopyLink :path="feed.path" named="Address of your calendar" />
      <span class="quiet">Shown once. Whoever has it can read your work in the plan.</span>
    </p>
    <p v-else-if="feed?.made_at" class="quiet">
      A calendar has had an address since {{ date(feed.made_at) }}; {{ ended ? 'it ended' : 'it ends' }}
      {{ date(feed.ends_at!) }}. {{ feed.used_at ? `Last read ${moment(feed.used_at)}.` : 'No calendar has read it yet.' }}
    </p>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <div class="tools">
      <Button
        severity="secondary"
        :label="feed?.made_at ? 'Make a new address' : 'Make an address'"
        :disabled="at.busy"
        @click="make"
      />
      <AskOnce
        v-if="feed?.made_at"
        plain
        label="End it"
        question="The calendar that has it shows nothing more from here. A new one can be made."
        yes="End it"
        :disabled="at.busy"
        @yes="end"
      />
      <a href="/plan/mine.ics">As a file</a>
    </div>
  </section>
</template>
