<script setup lang="ts">
/** Reads a number from a label with the camera, where the browser can read one; where it cannot, there is no button. */
import { nextTick, onBeforeUnmount, ref } from 'vue'
import Button from '@/design/controls/button'

interface Reader {
  detect: (from: HTMLVideoElement) => Promise<{ rawValue: string }[]>
}
type Scanning = Window & { BarcodeDetector?: new () => Reader }

const props = defineProps<{ label: string }>()
const emit = defineEmits<{ scanned: [text: string] }>()
const can = 'BarcodeDetector' in window && !!navigator.mediaDevices?.getUserMedia
const EVERY_MS = 200
const looking = ref(false)
const problem = ref('')
const video = ref<HTMLVideoElement | null>(null)
let stream: MediaStream | null = null
let next = 0

function stop(): void {
  clearTimeout(next)
  for (const track of stream?.getTracks() ?? []) track.stop()
  stream = null
  looking.value = false
}
onBeforeUnmount(stop)
async function begin(): Promise<void> {
  problem.value = ''
  looking.value = true
  try {
    const given = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
    if (!looking.value) return given.getTracks().forEach((track) => track.stop()) // stopped while it was asked for
    stream = given
    await nextTick()
    video.value!.srcObject = stream
    await video.value!.play()
    look(new (window as Scanning).BarcodeDetector!())
  } catch {
    stop()
    problem.value = 'The camera cannot be used here. Type the number.'
  }
}
function look(reader: Reader): void {
  next = window.setTimeout(async () => {
    const found = video.value ? await reader.detect(video.value).catch(() => []) : []
    const text = found[0]?.rawValue.trim()
    if (!looking.value) return
    if (!text) return look(reader)
    stop()
    emit('scanned', text)
  }, EVERY_MS)
}
</script>

<template>
  <span v-if="can" class="scan">
    <Button
      type="button"
      severity="secondary"
      :label="looking ? 'Stop' : 'Scan'"
      :aria-label="looking ? `Stop: ${props.label}` : `Scan: ${props.label}`"
      @click="looking ? stop() : begin()"
    />
    <video v-show="looking" ref="video" muted playsinline :aria-label="`Camera: ${props.label}`"></video>
    <span v-if="problem" class="trouble" role="alert">{{ problem }}</span>
  </span>
</template>

<style scoped>
.scan {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
video {
  width: min(320px, 80vw);
  border: 2px solid var(--accent);
  border-radius: var(--radius);
  background: var(--ink);
}
</style>
