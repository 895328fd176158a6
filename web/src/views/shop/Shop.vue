<script setup lang="ts">
/** What the shop says of itself. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import ShopTabs from '@/app/ShopTabs.vue'
import { useAttempt } from '@/app/useAttempt'

const session = useSession()
const shop = ref<Schemas['ShopOut'] | null>(null)
const form = reactive({ name: '', second_factor: false })
const reading = useAttempt('The shop could not be read.')
const saving = useAttempt('It could not be saved.')
const saved = ref(false)

function take(found: Schemas['ShopOut']): void {
  shop.value = found
  Object.assign(form, { name: found.name, second_factor: found.second_factor })
}
onMounted(() => reading.run(async () => take(await answer(api.GET('/api/shop')))))
const keep = (): Promise<boolean> =>
  saving.run(async () => {
    take(await write(() => api.POST('/api/shop', { body: { ...form } })))
    await session.load()
    saved.value = true
  })
</script>

<template>
  <ShopTabs />
  <section class="desk">
    <h1>The shop</h1>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!shop" class="quiet" role="status">Reading the shop …</p>
    <form v-else class="card shop" aria-label="The shop" novalidate @submit.prevent="keep" @input="saved = false">
      <Field label="Name" hint="as it stands on reports" name="name" :at="saving"
        ><InputText v-model="form.name" maxlength="120"
      /></Field>
      <label class="tick"
        ><input v-model="form.second_factor" type="checkbox" />
        <span
          >Everybody needs a code beside the password<small class="quiet"
            >from an authenticator app; who has none sets it up before anything else opens</small
          ></span
        ></label
      >
      <p v-if="saving.problem && !saving.field" class="problem" role="alert">{{ saving.problem }}</p>
      <div class="tools">
        <Button type="submit" label="Save" :disabled="saving.busy" />
        <span v-if="saved" role="status">Saved.</span>
        <RouterLink v-if="saved && !session.me?.begun" :to="{ name: 'machines' }">On with the first day</RouterLink>
      </div>
    </form>
  </section>
</template>

<style scoped>
.shop {
  max-width: 620px;
}
.tick {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: var(--target);
}
.tick input {
  width: 20px;
  height: 20px;
  min-height: 0;
  flex: none;
  accent-color: var(--accent);
}
.tick small {
  display: block;
}
</style>
