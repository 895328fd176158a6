<script setup lang="ts">
/** What the shop says of itself, a page each. */
import { computed, onMounted, ref, watch, type Component } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import PageTabs from '@/app/PageTabs.vue'
import ShopTabs from '@/app/ShopTabs.vue'
import { useAttempt } from '@/app/useAttempt'
import RatesForm from '@/views/supply/RatesForm.vue'
import ShopCrops from './ShopCrops.vue'
import ShopHours from './ShopHours.vue'
import ShopName from './ShopName.vue'
import ShopOutside from './ShopOutside.vue'
import ShopPlaces from './ShopPlaces.vue'
import ShopWays from './ShopWays.vue'

const props = defineProps<{ part?: string }>()
const PARTS: { part: string; name: string; page?: Component }[] = [
  { part: '', name: 'Name and mark', page: ShopName },
  { part: 'ways', name: 'Units, time and days', page: ShopWays },
  { part: 'hours', name: 'Working hours', page: ShopHours },
  { part: 'places', name: 'Bays, yard and lifts', page: ShopPlaces },
  { part: 'crops', name: 'Crops and seasons', page: ShopCrops },
  { part: 'rates', name: 'Rates' },
  { part: 'outside', name: 'Mail and desk' },
]
const ways = PARTS.map(({ part, name }) => ({ name, to: { name: 'shop', params: part ? { part } : { part: '' } } }))
const here = computed(() => PARTS.find((one) => one.part === (props.part ?? ''))!)
const shop = ref<Schemas['ShopOut'] | null>(null)
const terms = ref<Schemas['TermsOut'] | null>(null)
const reading = useAttempt('The shop could not be read.')
onMounted(() =>
  reading.read(async () => {
    shop.value = await answer(api.GET('/api/shop'))
  }),
)
watch(
  () => props.part,
  (part) => {
    if (part === 'rates' && !terms.value)
      void reading.read(async () => void (terms.value = (await answer(api.GET('/api/supply/list'))).terms))
  },
  { immediate: true },
)
</script>

<template>
  <ShopTabs />
  <PageTabs label="What the shop says of itself" :ways="ways" exact />
  <section class="desk">
    <h1>{{ here.name }}</h1>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!shop" class="quiet" role="status">Reading the shop …</p>
    <div v-if="shop" class="narrow">
      <component :is="here.page" v-if="here.page" v-model="shop" />
      <ShopOutside v-else-if="part === 'outside'" />
      <RatesForm v-else-if="terms" v-model="terms" />
    </div>
  </section>
</template>

<style scoped>
.narrow {
  display: grid;
  gap: 16px;
  max-width: 820px;
}
</style>
