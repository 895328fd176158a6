<script setup lang="ts">
/** Pictures of the machine and its plate; they wait in the outbox where there is no signal. */
import { computed, ref, watch } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { keepPhoto } from '@/api/photos'
import FilePick from '@/app/FilePick.vue'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import { date } from '@/app/words'

type Particulars = Schemas['ParticularsOut']
const props = defineProps<{ machine: number; name: string; pictures: Schemas['MachinePictureOut'][] }>()
const emit = defineEmits<{ changed: [found: Particulars]; reload: [] }>()
const session = useSession()
const NAMES = { machine: 'The machine', plate: 'Its plate' } as const
const at = useAttempt('That could not be done.')
const problem = ref('')
const removed = ref('')
const PATH = '/api/machines/{machine_id}/pictures'
const waiting = computed(
  () => outbox.box.entries.filter((one) => one.path === PATH && one.params.machine_id === props.machine).length,
)
watch(waiting, (now, before) => now < before && emit('reload'))

async function add(file: File, what: keyof typeof NAMES): Promise<void> {
  problem.value = ''
  try {
    await keepPhoto(
      file,
      PATH,
      { machine_id: props.machine },
      { what },
      {
        what: `Picture: ${NAMES[what].toLowerCase()}`,
        shown: '',
        machine: props.name,
      },
    )
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const change = (picture: string, way: 'remove' | 'restore'): Promise<boolean> =>
  at.run(async () => {
    const params = { path: { machine_id: props.machine, machine_picture_id: picture } }
    emit('changed', await write(() => api.POST(`${PATH}/{machine_picture_id}/${way}`, { params })))
    removed.value = way === 'remove' ? picture : ''
  })
</script>

<template>
  <section v-if="pictures.length || session.may('add pictures')" class="card" aria-labelledby="pictures">
    <h2 id="pictures">Pictures</h2>
    <ul v-if="pictures.length">
      <li v-for="one in pictures" :key="one.uuid">
        <a :href="one.path" target="_blank" rel="noopener"><img :src="one.path" :alt="NAMES[one.what]" loading="lazy" /></a>
        <small
          >{{ NAMES[one.what] }}<br /><span class="quiet">{{ one.by }}, {{ date(one.at) }}</span></small
        >
        <button
          v-if="session.may('remove pictures')"
          type="button"
          class="link"
          :aria-label="`Take away: ${NAMES[one.what].toLowerCase()}, ${date(one.at)}`"
          @click="change(one.uuid, 'remove')"
        >
          Take away
        </button>
      </li>
    </ul>
    <p v-if="problem || at.problem" class="problem" role="alert">{{ problem || at.problem }}</p>
    <p v-if="waiting" role="status">{{ waiting === 1 ? 'A picture is' : `${waiting} pictures are` }} on the way.</p>
    <p v-if="removed" role="status">
      Taken away. <button type="button" class="link" @click="change(removed, 'restore')">Put it back</button>
    </p>
    <div v-if="session.may('add pictures')" class="tools">
      <FilePick label="Picture of the machine" accept="image/*" @file="(file) => add(file, 'machine')" />
      <FilePick label="Picture of its plate" accept="image/*" @file="(file) => add(file, 'plate')" />
    </div>
  </section>
</template>

<style scoped>
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
li {
  display: grid;
  gap: 4px;
  justify-items: start;
}
img {
  width: 180px;
  height: 135px;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
</style>
