<script setup lang="ts">
/** What has been called for so far. */
import { computed } from 'vue'
import type { Part } from '@/api/client'
import { counted } from '@/app/counted'

const props = defineProps<{ parts: Part[]; walkAround: string }>()

const rows = computed(() =>
  props.parts
    .filter((part) => part.quantity > 0)
    .map((part) => {
      const along = part.pieces.find((piece) => piece.origin === 'companion' && !piece.declined_reason)
      return { part, why: along?.why ?? '' }
    }),
)
const pieces = computed(() => rows.value.reduce((sum, row) => sum + row.part.quantity, 0))
</script>

<template>
  <aside class="tray" aria-label="Parts called for">
    <h2>
      Parts <span class="quiet">{{ counted(pieces, 'piece') }}</span>
    </h2>
    <p v-if="!rows.length" class="quiet">Nothing called for yet. Parts and what goes with them appear here as readings land.</p>
    <TransitionGroup tag="ul" name="drop" :tabindex="rows.length ? 0 : undefined" aria-label="Parts">
      <li v-for="row in rows" :key="row.part.slot + row.part.side">
        <b class="n">{{ row.part.quantity }}</b>
        <span class="what"
          >{{ row.part.name }}<template v-if="row.part.side_name">, {{ row.part.side_name }}</template>
          <small v-if="row.part.found_at">{{ row.part.found_at }}</small>
          <small v-if="row.part.along_at" class="along" :title="row.why">along with it: {{ row.part.along_at }}</small>
        </span>
      </li>
    </TransitionGroup>
    <RouterLink v-if="rows.length" :to="{ name: 'parts', params: { id: walkAround } }">Whole list</RouterLink>
  </aside>
</template>

<style scoped>
.tray {
  display: grid;
  align-content: start;
  gap: 6px;
  min-width: 0;
}
li {
  display: grid;
  grid-template-columns: 30px 1fr;
  gap: 6px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
  line-height: 1.25;
}
.n {
  font-size: 1.15rem;
  text-align: right;
  padding-right: 4px;
}
small {
  display: block;
  color: var(--quiet);
  font-size: 1rem;
}
.along::before {
  content: '+ ';
  font-weight: 600;
  color: var(--accent);
}
ul {
  max-height: max(170px, calc(100vh - 560px));
  overflow-y: auto;
}
h2 span {
  font-weight: 400;
  font-size: 1rem;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 600;
}
@media (prefers-reduced-motion: no-preference) {
  .drop-enter-active {
    transition:
      opacity 200ms,
      transform 200ms;
  }
  .drop-enter-from {
    opacity: 0;
    transform: translateX(12px);
  }
}
</style>
