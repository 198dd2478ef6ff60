import { describe, expect, it } from 'vitest'

import { makeQueue } from '../src/stores/queue'

const later = () => new Promise((resolve) => setTimeout(resolve, 1))

describe('the queue of edits', () => {
  it('does one after another, in the order they came', async () => {
    const queue = makeQueue()
    const log: string[] = []
    const work = (name: string) => async () => {
      log.push(`${name} begins`)
      await later()
      log.push(`${name} ends`)
      return name
    }
    expect(await Promise.all([queue.add(work('a')), queue.add(work('b')), queue.add(work('c'))])).toEqual([
      'a',
      'b',
      'c',
    ])
    expect(log).toEqual(['a begins', 'a ends', 'b begins', 'b ends', 'c begins', 'c ends'])
    expect(queue.pending.value).toBe(0)
  })

  it('does only the newest of waiting work with one key, and tells the others', async () => {
    const queue = makeQueue()
    const done: number[] = []
    const nudge = (n: number) => queue.add(async () => (await later(), done.push(n), n), 'box')
    expect(await Promise.all([1, 2, 3, 4].map(nudge))).toEqual([1, null, null, 4])
    expect(done).toEqual([1, 4])
  })

  it('goes on after work that failed', async () => {
    const queue = makeQueue()
    const failed = queue.add(() => Promise.reject(new Error('away')))
    const next = queue.add(async () => 'fine')
    await expect(failed).rejects.toThrow('away')
    expect(await next).toBe('fine')
    expect(queue.pending.value).toBe(0)
  })
})
