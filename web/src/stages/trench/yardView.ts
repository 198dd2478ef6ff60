import type { YardShape } from '../../api/client'

export type XY = [number, number]
export type Path = readonly (readonly number[])[]

/** The yard in a picture: pixels of a place, and back; north up, one scale both ways. */
export interface YardScale {
  width: number
  height: number
  per: number
  px: (at: readonly number[]) => XY
  back: (x: number, y: number) => XY
}

export function yardScale(bounds: readonly number[], width: number, height: number): YardScale {
  const [left = 0, low = 0, right = 1, high = 1] = bounds
  const per = Math.min(width / (right - left), height / (high - low))
  const [x0, y0] = [(width - (right - left) * per) / 2, (height - (high - low) * per) / 2]
  return {
    width,
    height,
    per,
    px: (at) => [x0 + ((at[0] ?? 0) - left) * per, y0 + (high - (at[1] ?? 0)) * per],
    back: (x, y) => [left + (x - x0) / per, high - (y - y0) / per],
  }
}

export const pathOf = (points: Path, scale: YardScale, closed = false) =>
  points
    .map(
      (p, i) =>
        (i ? 'L' : 'M') +
        scale
          .px(p)
          .map((v) => v.toFixed(1))
          .join(' '),
    )
    .join('') + (closed ? 'Z' : '')

const edges = (points: readonly XY[]) => {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }
}

/** The frame round some places, in pixels. */
export function frameOf(points: Path, scale: YardScale) {
  const { left, right, top, bottom } = edges(points.map(scale.px))
  return { x: left, y: top, w: Math.max(right - left, 2), h: Math.max(bottom - top, 2) }
}

/** So far from the edges that a word is not cut off. */
export const within = (x: number, word: string, width: number) =>
  Math.min(Math.max(x, word.length * 4 + 4), width - word.length * 4 - 4)

/** A place for a word of what runs out of the picture. */
export const inside = ([x, y]: XY, scale: YardScale): XY => [
  Math.min(Math.max(x, 26), scale.width - 60),
  Math.min(Math.max(y, 34), scale.height - 48),
]

/** The name of a building: in one line or two where it has room, else under it. */
export function buildingName(shape: YardShape, scale: YardScale) {
  const { left, right, top, bottom } = edges((shape.rings[0] ?? []).map(scale.px))
  const words = shape.name.split(' ')
  const cut = Math.ceil(words.length / 2)
  const two = words.length > 1 ? [words.slice(0, cut).join(' '), words.slice(cut).join(' ')] : [shape.name]
  const fits = (lines: string[]) =>
    lines.every((line) => line.length * 8 <= right - left - 8) && bottom - top > lines.length * 17
  const lines = fits([shape.name]) ? [shape.name] : fits(two) ? two : null
  const [x, y] = scale.px(shape.at)
  return lines
    ? { id: shape.id, lines, x, y: y + 5 - (lines.length - 1) * 8, under: false, text: shape.text }
    : {
        id: shape.id,
        lines: [shape.name],
        x: within(x, shape.name, scale.width),
        y: bottom + 16,
        under: true,
        text: '',
      }
}

/** Which side of its reading a depth stands on: left (−1), or right (1) where a building is left of it. */
export function sideOf(at: readonly number[], buildings: readonly YardShape[], scale: YardScale): 1 | -1 {
  const [x, y] = scale.px(at)
  const covered = buildings.some((shape) => {
    const box = edges((shape.rings[0] ?? []).map(scale.px))
    return y > box.top - 16 && y < box.bottom + 8 && x - 44 < box.right && x > box.left
  })
  return covered ? 1 : -1
}

/** Where a service has its name: beside its first point that is in the picture. */
export function tagOf(line: Path, scale: YardScale): XY {
  for (let i = 1; i < line.length; i++)
    for (let step = 0; step <= 20; step++) {
      const [a, b] = [scale.px(line[i - 1] ?? []), scale.px(line[i] ?? [])]
      const at: XY = [a[0] + ((b[0] - a[0]) * step) / 20, a[1] + ((b[1] - a[1]) * step) / 20]
      if (at[0] > 8 && at[0] < scale.width - 70 && at[1] > 14 && at[1] < scale.height - 10)
        return [at[0] + 6, at[1] + 4]
    }
  return inside(scale.px(line[0] ?? []), scale)
}

/** The outline by which a line is taken: a band along it. */
export function bandOf(points: Path, scale: YardScale): string {
  const at = points.map(scale.px)
  const off = (p: XY, by: number) => `${(p[0] + by).toFixed(1)},${(p[1] + by).toFixed(1)}`
  return [...at.map((p) => off(p, 8)), ...[...at].reverse().map((p) => off(p, -8))].join(' ')
}
