<script setup lang="ts">
import Button from '@/design/controls/button'
import SelectButton from '@/design/controls/selectbutton'
import { ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useSession } from './session'
import LengthNote from './LengthNote.vue'
import SearchBox from './SearchBox.vue'
import SyncBar from './SyncBar.vue'
import SyncState from './SyncState.vue'
import { switchTheme, theme } from './theme'
import { screenOf, useHead } from './useHead'

const session = useSession()
const route = useRoute()
const UNITS = [
  { label: 'mm', value: 'mm' },
  { label: 'in', value: 'in' },
]
const { at, inVain, missed, unsaved, back, goOn, again, readAgain, units, changeShop, leave } = useHead()

/** On a phone: whether what is wanted now and then stands open. */
const menu = ref(false)
watch(
  () => route.fullPath,
  () => (menu.value = false),
)
/** Screens that lie behind the one link to what is the shop's own. */
const OF_THE_SHOP = ['shop', 'people', 'rules', 'own-checks', 'new-check', 'own-check', 'changes']
</script>

<template>
  <a class="skip" href="#main">Skip to the work</a>
  <header v-if="session.me" class="bar" :class="{ working: route.name === 'walk-around', open: menu }">
    <RouterLink class="home" :to="{ name: 'machines' }" aria-label="Lumvek, to the machines">
      <svg viewBox="0 0 32 32" width="26" height="26" aria-hidden="true">
        <path class="w" d="M3 21h26" />
        <circle class="w" cx="9" cy="21" r="4" />
        <path class="f" d="m22 15.6 5.4 5.4-5.4 5.4-5.4-5.4z" />
        <path class="w" d="M9 12V5" />
      </svg>
      <b>Lumvek</b>
    </RouterLink>
    <nav class="ways" aria-label="Lumvek">
      <RouterLink :to="{ name: 'machines' }">Machines</RouterLink
      ><RouterLink
        v-if="session.may('see the season’s plan')"
        :to="{ name: 'plan' }"
        :class="{ here: route.path.startsWith('/plan') }"
        >Work plan</RouterLink
      ><RouterLink :to="{ name: 'season-end' }">Season’s end</RouterLink
      ><RouterLink :to="{ name: session.onlyOwns ? 'costs' : 'needed' }" :class="{ here: route.path.startsWith('/parts') }">{{
        session.onlyOwns ? 'Cost' : 'Parts and orders'
      }}</RouterLink
      ><RouterLink :to="{ name: 'bench' }" :class="{ here: route.name === 'bench' }">Bench</RouterLink
      ><RouterLink :to="{ name: 'catalogue' }">Catalogue</RouterLink
      ><RouterLink
        v-if="session.may('see rules')"
        :to="{ name: session.may('see people') ? 'people' : 'rules' }"
        :class="{ here: OF_THE_SHOP.includes(String(route.name)) }"
        >{{ session.may('see people') ? 'Shop' : 'Rules' }}</RouterLink
      ><RouterLink class="own" :to="{ name: 'account' }" :class="{ here: route.name === 'account' }">Your account</RouterLink>
    </nav>
    <select
      v-if="session.me.shops.length > 1"
      :key="inVain"
      class="shop"
      aria-label="Shop to work in"
      :value="session.me.id"
      @change="changeShop(Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-for="one in session.me.shops" :key="one.member" :value="one.member">{{ one.name }}</option>
    </select>
    <span v-else class="shop">{{ session.me.shop }}</span>
    <SearchBox />
    <SyncState />
    <button type="button" class="menu" :aria-expanded="menu" @click="menu = !menu">
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true"><path d="M3 5h14M3 10h14M3 15h14" /></svg>
      <span class="unseen">Menu</span>
    </button>
    <SelectButton
      :key="inVain"
      v-model="units"
      class="units"
      :options="UNITS"
      option-label="label"
      option-value="value"
      :allow-empty="false"
      aria-label="Units to read in"
    />
    <Button
      class="plain"
      severity="secondary"
      text
      :label="theme === 'dark' ? 'Light' : 'Dark'"
      :aria-label="theme === 'dark' ? 'Light theme' : 'Dark theme'"
      @click="switchTheme"
    />
    <RouterLink class="who" :to="{ name: 'account' }" title="Your account"
      >{{ session.me.name }}<small>{{ session.me.role_name }}</small></RouterLink
    >
    <Button class="plain" severity="secondary" text label="Log out" @click="leave" />
  </header>
  <SyncBar
    :trouble="at.problem"
    :missed="missed"
    :unsaved="unsaved"
    @seen="at.problem = ''"
    @back="back"
    @go-on="goOn"
    @again="readAgain"
  />
  <main id="main" tabindex="-1">
    <RouterView v-slot="{ Component, route: there }"
      ><component :is="Component" :key="`${screenOf(there)}-${units}-${session.me?.id ?? 0}-${again}`"
    /></RouterView>
  </main>
  <LengthNote />
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 50px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  background: var(--surface);
}
.home {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  text-decoration: none;
  font-size: 1.15rem;
  min-height: var(--target);
}
.home .w {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2.6;
  stroke-linecap: round;
}
.home .f {
  fill: var(--accent);
}
.ways {
  display: flex;
}
.ways a {
  white-space: nowrap;
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 8px;
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
}
.ways a.router-link-exact-active,
.ways a.here {
  color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
.shop {
  flex: 1;
  text-align: right;
  color: var(--quiet);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.shop:is(select) {
  flex: 0 1 auto;
  margin-left: auto;
  min-height: var(--target);
  max-width: 220px;
  font: inherit;
  color: var(--ink);
  background: var(--surface);
  border: 1px solid var(--quiet);
  border-radius: 6px;
}
.who {
  color: var(--ink);
  text-decoration: none;
  line-height: 1.15;
  text-align: right;
  white-space: nowrap;
}
.who small {
  display: block;
  color: var(--quiet);
  font-size: 0.85rem;
}
.plain {
  min-height: var(--target);
  white-space: nowrap;
}
.ways .own,
.menu {
  display: none;
}
.skip {
  position: absolute;
  left: 8px;
  top: -60px;
  padding: 10px 14px;
  background: var(--accent);
  color: var(--on-accent);
  z-index: 9;
  border-radius: var(--radius);
}
.skip:focus {
  top: 4px;
}
main:focus {
  outline: none;
}
@media (max-width: 700px) {
  .bar {
    flex-wrap: wrap;
    gap: 0 4px;
    height: auto;
    padding: 0 10px;
  }
  .sync {
    margin-left: auto;
  }
  .menu {
    display: grid;
    place-items: center;
    min-width: var(--target);
    min-height: var(--target);
    border: 0;
    background: none;
    color: var(--ink);
    cursor: pointer;
  }
  .menu path {
    stroke: currentColor;
    stroke-width: 2.2;
    stroke-linecap: round;
  }
  .ways {
    order: 8;
    width: 100%;
    overflow-x: auto;
  }
  .ways a {
    padding: 0 9px;
  }
  .ways .own {
    display: inline-flex;
  }
  .shop,
  .units,
  .plain,
  .who {
    order: 9;
    margin-bottom: 8px;
  }
  .shop:is(span) {
    flex: 1 1 100%;
    text-align: left;
  }
  .who {
    text-align: left;
  }
  .bar:not(.open) > :is(.shop, .units, .plain, .who),
  .bar .home b,
  /* The check in hand needs the height. */
  .working:not(.open) .ways {
    display: none;
  }
}
</style>
