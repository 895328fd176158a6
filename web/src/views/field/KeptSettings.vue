<script setup lang="ts">
/** How a machine was set in the field, the newest first; whether it worked is said here. */
import { ref } from 'vue'
import Button from '@/design/controls/button'
import type { Schemas } from '@/api/client'
import { moment } from '@/app/words'

defineProps<{ last: Schemas['SetInFieldOut'][]; maySet: boolean; busy: boolean }>()
defineEmits<{ worked: [uuid: string, how: boolean]; takeBack: [uuid: string] }>()
const opened = ref('')
</script>

<template>
  <section class="card" aria-labelledby="kept">
    <h2 id="kept">Kept</h2>
    <ul class="kept">
      <li v-for="one in last" :key="one.uuid" class="tools" :class="{ gone: one.taken_back }">
        <span class="grow">
          <b>{{ one.shown.slice(0, opened === one.uuid ? undefined : 4).join(', ') || 'Nothing set otherwise' }}</b>
          <button v-if="one.shown.length > 4 && opened !== one.uuid" type="button" class="link" @click="opened = one.uuid">
            and {{ one.shown.length - 4 }} more
          </button>
          <template v-if="one.why"> because {{ one.why }}</template>
          <small class="quiet"
            >{{ moment(one.at) }}, {{ one.by }}{{ one.crop ? `, ${one.crop}` : '' }}{{ one.place ? `, ${one.place}` : ''
            }}{{ one.condition ? `, ${one.condition}` : '' }}{{ one.header ? `, ${one.header}` : ''
            }}{{ one.taken_back ? ', taken back' : '' }}</small
          ></span
        >
        <template v-if="!one.taken_back && maySet">
          <span v-if="one.worked !== null" class="told">{{ one.worked ? '✓ worked' : '✗ did not work' }}</span>
          <Button
            v-if="one.worked !== true"
            severity="secondary"
            label="It worked"
            :disabled="busy"
            @click="$emit('worked', one.uuid, true)"
          />
          <Button
            v-if="one.worked !== false"
            severity="secondary"
            label="It did not"
            :disabled="busy"
            @click="$emit('worked', one.uuid, false)"
          />
          <button type="button" class="link" @click="$emit('takeBack', one.uuid)">Take back</button>
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.kept small {
  display: block;
  font-weight: 400;
}
.kept {
  list-style: none;
  margin: 0;
  padding: 0;
}
.kept li {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.kept .grow {
  flex: 1 1 320px;
}
.gone .grow {
  text-decoration: line-through;
}
.told {
  font-weight: 600;
}
</style>
