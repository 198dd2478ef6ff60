import { ask, AWAY, type Problem, traffic } from './client'

/** Sends a file as it is; its answer, or the problem that the server tells. */
export const postFile = <T>(url: string, body: Blob) =>
  ask<T>(
    fetch(url, { method: 'POST', body, headers: { 'Content-Type': 'application/octet-stream' } }).then(
      async (answer) => (answer.ok ? { data: (await answer.json()) as T } : { error: await answer.json() }),
    ),
  )

/** Sends a photo and tells how far it is, 0 to 1. The problem that the server tells, AWAY where it does not answer. */
export function sendPhoto(url: string, body: Blob, tell: (share: number) => void): Promise<Problem | null> {
  traffic.asking++
  return new Promise<Problem | null>((resolve) => {
    const call = new XMLHttpRequest()
    call.open('POST', url)
    call.setRequestHeader('Content-Type', 'application/octet-stream')
    call.upload.onprogress = (event) => event.total && tell(event.loaded / event.total)
    call.onerror = call.ontimeout = call.onabort = () => resolve(AWAY)
    call.onload = () => {
      if (call.status < 300) return resolve(null)
      try {
        resolve(JSON.parse(call.responseText) as Problem)
      } catch {
        resolve(AWAY)
      }
    }
    call.send(body)
  }).finally(() => traffic.asking--)
}
