import { describe, expect, it } from 'vitest'

import { makeOurs } from '../src/stores/ours'

const at = (revision: number) => Promise.resolve({ revision })
const after = (ms: number, revision?: number) =>
  new Promise<{ revision?: number }>((done) => setTimeout(() => done({ revision }), ms))

describe('what this page makes beside its queue', () => {
  it('is no other window', async () => {
    const ours = makeOurs(20)
    await ours.beside('a', at(5))
    await ours.beside('a', at(6))
    expect(await ours.only('a', 4, 6)).toBe(true)
  })

  it('does not hide another window before, between or after', async () => {
    const ours = makeOurs(20)
    await ours.beside('a', at(5))
    await ours.beside('a', at(7))
    expect(await ours.only('a', 3, 5)).toBe(false)
    expect(await ours.only('a', 4, 7)).toBe(false)
    expect(await ours.only('a', 4, 8)).toBe(false)
  })

  it('is of its own job: the same number of another one is another window', async () => {
    const ours = makeOurs(20)
    await ours.beside('a', at(5))
    expect(await ours.only('a', 4, 5)).toBe(true)
    expect(await ours.only('b', 4, 5)).toBe(false)
  })

  it('is waited for while its answer is on its way, and not for long', async () => {
    const ours = makeOurs(40)
    const photo = ours.beside('a', after(10, 9))
    expect(await ours.only('a', 8, 9)).toBe(true)
    await photo
    void ours.beside('a', after(400, 10))
    const begun = Date.now()
    expect(await ours.only('a', 9, 10)).toBe(false)
    expect(Date.now() - begun).toBeLessThan(300)
  })

  it('made nothing where it was refused, and nothing was made where the revision is the same', async () => {
    const ours = makeOurs(20)
    await ours.beside('a', after(1))
    expect(await ours.only('a', 1, 2)).toBe(false)
    expect(await ours.only('a', 2, 2)).toBe(false)
  })
})
