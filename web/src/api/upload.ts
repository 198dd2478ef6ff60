import { ask } from './client'

/** Sends a file as it is; its answer, or the problem that the server tells. */
export const postFile = <T>(url: string, body: Blob) =>
  ask<T>(
    fetch(url, { method: 'POST', body, headers: { 'Content-Type': 'application/octet-stream' } }).then(
      async (answer) => (answer.ok ? { data: (await answer.json()) as T } : { error: await answer.json() }),
    ),
  )
