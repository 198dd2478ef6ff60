import { describe, expect, it } from 'vitest'

import { createPinia, setActivePinia } from 'pinia'
import { watch } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'

import { readAt, readPicked, useLook, writePicked } from '../src/stores/look'

describe('where one looks, as the address says it', () => {
  it('takes what is ours and leaves the rest', () => {
    const said = {
      room: 'hr2',
      leg: '6',
      evil: 'x',
      panel: '<script>',
      way: ['a', 'b'],
      circuit: '',
      dialog: 'keys',
    }
    expect(readAt(said)).toEqual({ room: 'hr2', leg: '6', dialog: 'keys' })
    expect(readAt({ room: 'r'.repeat(61) })).toEqual({})
  })

  it.each([
    [{ kind: 'box', id: 'b12' }, 'box.b12'],
    [{ kind: 'wall', id: 'hr2', side: 0 }, 'wall.hr2.0'],
  ] as const)('reads what it wrote: %o', (what, text) => {
    expect(writePicked(what)).toBe(text)
    expect(readPicked(text)).toEqual(what)
  })

  it.each(['', 'box', 'roof.1', undefined])('reads nothing from %s', (text) => {
    expect(readPicked(text)).toBeNull()
  })
})

describe('an address on its way', () => {
  const none = { render: () => null }
  async function following() {
    setActivePinia(createPinia())
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [
        { path: '/jobs/:job/:stage', component: none },
        { path: '/jobs/:job/:rest(.*)*', component: none, meta: { lost: true } },
        { path: '/:rest(.*)*', component: none, meta: { lost: true } },
      ],
    })
    const look = useLook()
    look.follow(router)
    await router.push('/jobs/j1/walls')
    return { router, look }
  }
  const rest = () => new Promise((done) => setTimeout(done, 30))

  it('is let go when a newer look overtakes it', async () => {
    const { router, look } = await following()
    router.beforeEach(() => new Promise<void>((done) => setTimeout(done, 10)))
    const seen: (string | undefined)[] = []
    watch(
      () => look.at.dialog,
      (now) => seen.push(now),
      { flush: 'sync' },
    )
    look.go({}, 'runs')
    look.go({ dialog: 'way' })
    await rest()
    await rest()
    expect(seen).toEqual(['way'])
    expect(router.currentRoute.value.fullPath).toBe('/jobs/j1/runs?dialog=way')
  })

  it('opens a dialog that Back closes', async () => {
    const { router, look } = await following()
    const shown = look.dialogOpen('keys')
    shown.value = true
    await rest()
    expect(router.currentRoute.value.query).toEqual({ dialog: 'keys' })
    router.back()
    await rest()
    expect(shown.value).toBe(false)
  })

  it('leaves a dialog behind when the stage changes, and keeps the room', async () => {
    const { look } = await following()
    look.go({ room: 'r1', dialog: 'pole' })
    look.go({}, 'boxes')
    expect(look.at).toEqual({ room: 'r1', dialog: undefined })
    expect(look.stage).toBe('boxes')
  })

  it('says of an address that is none of ours that it is not', async () => {
    const { router, look } = await following()
    await router.push('/nowhere/at/all')
    expect(look.lost).toBe(true)
    await router.push('/jobs/j1/boxes')
    expect(look.lost).toBe(false)
  })

  it('goes on from there to the stage that was looked at last', async () => {
    const { router, look } = await following()
    await router.push('/jobs/j1/no/such')
    expect(look.lost).toBe(true)
    look.go({}, 'walls')
    await rest()
    expect(router.currentRoute.value.path).toBe('/jobs/j1/walls')
    expect(look.lost).toBe(false)
  })

  it.each([
    ['a room is a step of its own', { room: 'r2' }, 2],
    ['a leg is none', { leg: '3' }, 1],
    ['a pick is none', { pick: 'box.b1' }, 1],
  ] as const)('keeps Back short: %s', async (_, next, steps) => {
    const { router, look } = await following()
    await router.push('/jobs/j1/walls?room=r1')
    look.go(next)
    await rest()
    router.go(-steps)
    await rest()
    expect(router.currentRoute.value.fullPath).toBe('/jobs/j1/walls')
  })
})
