/** A page of the shop's that is saved as a whole: what was refused, and that it was saved, until something is typed again. */
import { ref, type Ref } from 'vue'
import { useAttempt, type Attempt } from '@/app/useAttempt'

export function useSaving(send: () => Promise<void>): { saving: Attempt; saved: Ref<boolean>; keep: () => Promise<boolean> } {
  const saving = useAttempt('It could not be saved.')
  const saved = ref(false)
  const keep = (): Promise<boolean> =>
    saving.run(async () => {
      await send()
      saved.value = true
    })
  return { saving, saved, keep }
}
