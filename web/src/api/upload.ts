import { ask, AWAY, type PhotoKept, type Problem, traffic } from './client'

/** Sends a file as it is; its answer, or the problem that the server tells. */
export const postFile = <T>(url: string, body: Blob) =>
  ask<T>(
    fetch(url, { method: 'POST', body, headers: { 'Content-Type': 'application/octet-stream' } }).then(
      async (answer) => (answer.ok ? { data: (await answer.json()) as T } : { error: await answer.json() }),
    ),
  )

/** A photo that was sent: its revision, or why it was not taken. */
export interface Sent {
  revision?: number
  problem?: Problem
}

/** Sends a photo and tells how far it is, 0 to 1. Its problem is AWAY where the server does not answer. */
export function sendPhoto(url: string, body: Blob, tell: (share: number) => void): Promise<Sent> {
  traffic.asking++
  return new Promise<Sent>((resolve) => {
    const away = () => resolve({ problem: AWAY })
    const call = new XMLHttpRequest()
    call.open('POST', url)
    call.setRequestHeader('Content-Type', 'application/octet-stream')
    call.upload.onprogress = (event) => event.total && tell(event.loaded / event.total)
    call.onerror = call.ontimeout = call.onabort = away
    call.onload = () => {
      try {
        const answer = JSON.parse(call.responseText) as PhotoKept | Problem
        if (call.status < 300) resolve({ revision: (answer as PhotoKept).revision })
        else resolve({ problem: answer as Problem })
      } catch {
        away()
      }
    }
    call.send(body)
  }).finally(() => traffic.asking--)
}
