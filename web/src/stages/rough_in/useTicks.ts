import type { ComputedRef } from 'vue'

import type { BoxCard, Edit, PanelCard } from '../../api/client'
import { useLook } from '../../stores/look'
import { useOutbox } from '../../stores/outbox'
import { tickOf, today } from './record'

interface Open {
  card: ComputedRef<BoxCard | null>
  panel: ComputedRef<PanelCard | null>
  /** The wall looked at. */
  here: ComputedRef<string | null>
  act: (edits: Edit[], label?: string) => Promise<unknown>
}

/** The steps of the card looked at, ticked: written down first, so that they are made also when the signal is gone. */
export function useTicks({ card, panel, here, act }: Open) {
  const look = useLook()
  const outbox = useOutbox()
  const open = () => card.value ?? panel.value

  function tick(steps: string[], done: boolean) {
    const at = open()
    if (!at) return
    if (look.at.node !== at.node || (here.value && look.at.wall !== here.value))
      look.go({ node: at.node, wall: here.value ?? undefined })
    const words =
      steps.length > 1 ? 'made up' : `${(steps[0] ?? '').replace('ask_', '').replace('_', ' ')} ticked`
    void outbox.tick([tickOf(at.node, steps, done)], `${at.name}: ${done ? words : 'tick taken off'}`)
  }
  const left = () => {
    const at = open()
    return at?.steps.filter((one) => !(outbox.willBe(at.node, one.key) ?? one.done)) ?? []
  }
  function next() {
    const first = left()[0]
    if (first) tick([first.key], true)
  }
  function all() {
    const needed = left().filter((one) => one.needed)
    if (needed.length)
      tick(
        needed.map((one) => one.key),
        true,
      )
  }
  const torque = (at: string, read: number, label: number | null) =>
    panel.value &&
    act(
      [{ op: 'torque', node: panel.value.node, at, lb_in: read, label_lb_in: label, on: today() }],
      `torque of ${at}`,
    )
  return { tick, next, all, torque }
}
