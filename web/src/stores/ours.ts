/** How long a revision that may be our own is waited for, ms. */
const PATIENCE_MS = 2000

/**
 * Revisions that this page makes beside its queue: a photo is long on its way, and changes go ahead of it. What was
 * made meanwhile by the page itself is no other window.
 */
export function makeOurs(patience = PATIENCE_MS) {
  const made = new Set<string>()
  const named = (job: string, revision: number) => `${job} ${revision}`
  const going = new Set<Promise<unknown>>()

  /** Work on a job beside the queue; the revision that it made is ours. */
  async function beside<T extends { revision?: number }>(job: string, work: Promise<T>): Promise<T> {
    const noted = work.then((answer) => {
      if (answer.revision !== undefined) made.add(named(job, answer.revision))
      return answer
    })
    going.add(noted)
    return noted.finally(() => going.delete(noted))
  }

  /** Whether all that was made of a job after revision `had`, up to `now`, was made here. */
  async function only(job: string, had: number, now: number): Promise<boolean> {
    const later = Array.from({ length: Math.max(0, now - had) }, (_, step) => had + step + 1)
    const all = () => later.length > 0 && later.every((revision) => made.has(named(job, revision)))
    if (!all() && going.size)
      await Promise.race([Promise.allSettled(going), new Promise((done) => setTimeout(done, patience))])
    return all()
  }

  return { beside, only }
}
