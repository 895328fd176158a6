/** The calibrations of one machine, and what is written of them. */
import { onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { figureIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'
import type { TypedLoad, TypedWeight } from './run'

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
  const collect = (load: TypedLoad): Promise<boolean> =>
    at.run(async () => {
      const figures = {
        machine_kg: figureIfTyped(load.machine_kg, 'machine_kg'),
        shown_pct: figureIfTyped(load.shown_pct, 'shown_pct'),
      }
      const body = { uuid: newUuid(), ...load, ...figures }
      found.value = await post('/api/calibration/machines/{machine_id}/loads', path, body, about(load.name || 'Load'))
    })
  const weigh = (load_id: string, typed: TypedWeight): Promise<boolean> =>
    at.run(async () => {
      const body = {
        scale_kg: figureIfTyped(typed.scale_kg, 'scale_kg'),
        reference_pct: figureIfTyped(typed.reference_pct, 'reference_pct'),
      }
      found.value = await post('/api/calibration/loads/{load_id}/weigh', { load_id }, body, about('Weighed load'))
    })
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
