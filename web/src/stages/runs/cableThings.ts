import type { PlanCable } from '../../api/client'
import type { Thing } from '../../parts/picture/things'
import type { PlanScale, XY } from '../../parts/planScale'

export interface CableThing extends Thing {
  cable: PlanCable
}

const HALF = 7

/** Each straight piece of a cable as an area that can be hit; those of the circuit looked at can be dragged. */
export function cableThings(
  cables: readonly PlanCable[],
  scale: PlanScale,
  circuit: string | null,
  way: string | null,
): CableThing[] {
  const found: CableThing[] = []
  for (const cable of cables) {
    cable.points.slice(1).forEach((to, i) => {
      const from = cable.points[i] as XY
      const [ax, ay] = [scale.x(from[0]), scale.y(from[1])]
      const [bx, by] = [scale.x(to[0] ?? 0), scale.y(to[1] ?? 0)]
      const long = Math.hypot(bx - ax, by - ay) || 1
      const [nx, ny] = [(-(by - ay) / long) * HALF, ((bx - ax) / long) * HALF]
      const corners = [
        [ax + nx, ay + ny],
        [bx + nx, by + ny],
        [bx - nx, by - ny],
        [ax - nx, ay - ny],
      ]
      const own = cable.circuit === circuit
      found.push({
        kind: 'cable',
        id: `${cable.way}.${cable.at}.${found.length}`,
        name: `${cable.way === way ? 'this cable' : own ? 'a cable of this circuit' : 'another cable'}, ${cable.at}`,
        mark: cable.way,
        x: Math.min(ax, bx) - HALF,
        y: Math.min(ay, by) - HALF,
        w: own ? 1 : Math.abs(bx - ax) + 2 * HALF,
        h: own ? 1 : Math.abs(by - ay) + 2 * HALF,
        points: corners.map((p) => p.join(',')).join(' '),
        picked: cable.way === way,
        drags: own,
        cable,
      })
    })
  }
  return found
}
