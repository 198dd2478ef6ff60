import { api, ask, type OutsideSheet } from '../api/client'
import { useSheet } from './useSheet'

/** All that lies between the buildings of the job, whole. */
export const useOutside = () =>
  useSheet<OutsideSheet | null>(async (id) => {
    const found = await ask(api.GET('/api/jobs/{job_id}/outside', { params: { path: { job_id: id } } }))
    return { data: found.data as OutsideSheet | undefined }
  }, null)
