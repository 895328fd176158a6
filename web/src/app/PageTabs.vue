<script setup lang="ts">
/** The ways through several pages that belong together. */
import { nextTick, useTemplateRef, watch } from 'vue'
import { useRoute, type RouteLocationRaw } from 'vue-router'

defineProps<{
  label: string
  /** of: names of pages that lie behind one of them. */
  ways: { to: RouteLocationRaw; name: string; of?: string[] }[]
  /** Only the very page counts as where one is, not those below it. */
  exact?: boolean
}>()
const nav = useTemplateRef('nav')
const route = useRoute()
/** Where one is stands in sight, also where the ways are wider than the screen. */
watch(
  () => route.name,
  async () => {
    await nextTick()
    const here = nav.value?.querySelector<HTMLElement>('.router-link-active')
    if (nav.value && here) nav.value.scrollLeft = here.offsetLeft - (nav.value.clientWidth - here.clientWidth) / 2
  },
  { immediate: true },
)
</script>

<template>
  <nav ref="nav" class="tabs" :class="{ exact }" :aria-label="label">
    <RouterLink
      v-for="way in ways"
      :key="way.name"
      :to="way.to"
      :class="{ 'router-link-active': way.of?.includes(String(route.name)) }"
      >{{ way.name }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 2px;
  padding: 6px 20px 0;
  border-bottom: 1px solid var(--line);
  overflow-x: auto;
  position: relative;
}
.tabs a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 14px;
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  white-space: nowrap;
}
.tabs:not(.exact) a.router-link-active,
.tabs a.router-link-exact-active {
  color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
@media (max-width: 700px) {
  .tabs {
    padding: 4px 12px 0;
  }
  .tabs a {
    padding: 0 10px;
  }
}
</style>
