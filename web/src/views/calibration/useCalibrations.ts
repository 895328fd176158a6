/** The calibrations of one machine, and what is written of them. */
import { onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'

export function useCalibrations(id: number) {
  const found = ref<Schemas['CalibrationsOut'] | null>(null)
  const at = useAttempt('That could not be kept.')
  const post = usePost()
  const path = { machine_id: id }
  const load = (): Promise<boolean> =>
    at.read(
      async () => void (found.value = await answer(api.GET('/api/calibration/machines/{machine_id}', { params: { path } }))),
    )
  onMounted(load)
  const about = (what: string) => ({ what, machine: found.value?.machine.name })

  const keep = (run: Schemas['CalibrationRunIn'], name: string): Promise<boolean> =>
    at.run(async () => void (found.value = await post('/api/calibration/machines/{machine_id}/runs', path, run, about(name))))
  const happened = (what: string, header: number | null = null): Promise<boolean> =>
    at.run(
      async () =>
        void (found.value = await post(
          '/api/calibration/machines/{machine_id}/happened',
          path,
          { uuid: newUuid(), what, header },
          about('What was done'),
        )),
    )
  const collect = (load: Omit<Schemas['CollectedLoadIn'], 'uuid'>): Promise<boolean> =>
    at.run(
      async () =>
        void (found.value = await post(
          '/api/calibration/machines/{machine_id}/loads',
          path,
          { uuid: newUuid(), ...load },
          about(load.name || 'Load'),
        )),
    )
  const weigh = (load_id: string, figures: Schemas['LoadWeighedIn']): Promise<boolean> =>
    at.run(
      async () =>
        void (found.value = await post('/api/calibration/loads/{load_id}/weigh', { load_id }, figures, about('Weighed load'))),
    )
  const takeBack = (what: 'run' | 'happened' | 'load', uuid: string): Promise<boolean> =>
    at.run(async () => {
      found.value = await write(() => {
        if (what === 'run')
          return api.POST('/api/calibration/runs/{calibration_run_id}/take-back', {
            params: { path: { calibration_run_id: uuid } },
          })
        if (what === 'happened')
          return api.POST('/api/calibration/happened/{happened_id}/take-back', { params: { path: { happened_id: uuid } } })
        return api.POST('/api/calibration/loads/{load_id}/take-back', { params: { path: { load_id: uuid } } })
      })
    })
  return { found, at, load, keep, happened, collect, weigh, takeBack }
}
