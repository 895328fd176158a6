<script setup lang="ts">
/** The figure of a calibration, worked out: begun with what is stored and with the loads that were weighed, drawn as it is typed. */
import { watch } from 'vue'
import Button from '@/design/controls/button'
import type { Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import DrawingOf from '@/design/drawings/DrawingOf.vue'
import BenchForm from '@/views/bench/BenchForm.vue'
import { blank, copied, type Subject, type Texts } from '@/views/bench/address'
import { useBench } from '@/views/bench/useBench'
import { benchTexts, workedOut, type Calibration } from './run'

const props = defineProps<{ subject: Subject; calibration: Calibration; loads: Schemas['CollectedLoadOut'][] }>()
const emit = defineEmits<{ take: [values: Record<string, string>]; given: [given: Record<string, unknown>] }>()
/** What was typed, kept by whoever shows it. */
const texts = defineModel<Texts>({ required: true })
const first = Object.keys(texts.value).length ? texts.value : benchTexts(props.subject.key, props.calibration, props.loads)
const bench = useBench(props.subject, { ...blank(props.subject), ...copied(first) })
watch(bench.texts, (now) => (texts.value = copied(now)), { deep: true })
const { sheet, problem, waits } = bench
const units = useSession().me?.units ?? 'mm'
watch(sheet, (now) => emit('given', Object.values(now?.runs ?? {})[0]?.given ?? {}))
</script>

<template>
  <section class="worked" :aria-label="subject.name">
    <BenchForm :subject="subject" :bench="bench" :units="units" />
    <div class="answer" aria-live="polite">
      <template v-if="sheet && !problem">
        <p class="big">{{ sheet.answer }}</p>
        <p>{{ sheet.words }}</p>
        <div class="picture"><DrawingOf v-if="sheet.drawing" :drawing="sheet.drawing" /></div>
        <Button
          severity="secondary"
          label="Take this figure"
          @click="emit('take', workedOut(sheet.runs, calibration, units))"
        />
      </template>
      <p v-else-if="problem" class="quiet">
        {{ waits ? 'Type the figures it is worked out of.' : problem.message }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.worked {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  font-size: 1rem;
}
.worked > .form {
  flex: 3 1 460px;
  min-width: 0;
}
.answer {
  flex: 2 1 280px;
}
.big {
  font-size: 1.8rem;
  font-weight: 600;
}
.picture {
  max-width: 420px;
}
</style>
