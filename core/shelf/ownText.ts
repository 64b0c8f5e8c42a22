import type { Printer } from './printer'

/** What stands for numbers in a printer's own start and end text. */
export const placeholders = {
  nozzle: 'nozzle temperature of the first layer, °C',
  bed: 'bed temperature of the first layer, °C',
  layer: 'height of the first layer, mm',
  left: 'left edge of what is printed, mm',
  right: 'its right edge',
  front: 'its front edge',
  back: 'its back edge',
  top: 'its height',
} as const
export type Placeholder = keyof typeof placeholders

const NAMED = /\{([a-zA-Z]*)\}/g

/** A text with numbers in the place of what stands for them; what stands for nothing is left as it is. */
export const filled = (text: string, values: Readonly<Record<Placeholder, number>>): string =>
  text.replace(NAMED, (whole, name: string) =>
    Object.hasOwn(values, name) ? String(Number(values[name as Placeholder].toFixed(3))) : whole,
  )

/** What is wrong with a printer's own text, each a sentence with its line: it must heat as asked, home, stay inside, and end cold. */
export function problemsOf(
  text: string,
  which: 'start' | 'end',
  { buildVolume, kinematics }: Pick<Printer, 'buildVolume' | 'kinematics'>,
): string[] {
  const problems: string[] = []
  const lines = text.split('\n').map((line) => line.replace(/;.*/, '').trim())
  lines.forEach((line, i) => {
    for (const [, name] of line.matchAll(NAMED))
      if (!Object.hasOwn(placeholders, name!))
        problems.push(
          `Line ${i + 1}: nothing stands for {${name}}; there are ${Object.keys(placeholders)
            .map((one) => `{${one}}`)
            .join(', ')}.`,
        )
  })
  const has = (pattern: RegExp): boolean => lines.some((line) => pattern.test(line))
  if (which === 'end') {
    if (!has(/^M10[49]\b.*S0\b/i)) problems.push('It leaves the nozzle hot: write M104 S0.')
    if (!has(/^M1[49]0\b.*S0\b/i)) problems.push('It leaves the bed hot: write M140 S0.')
    return problems
  }
  if (!has(/^G28\b/i)) problems.push('It never homes: write G28.')
  if (!has(/^M109\b/i)) problems.push('It never waits for the nozzle: write M109 S{nozzle}.')
  if (!has(/^M1[49]0\b/i)) problems.push('It never heats the bed: write M190 S{bed}.')
  lines.forEach((line, i) => {
    const fixed = /^M(104|109|140|190)\b.*S(\d+(?:\.\d+)?)/i.exec(line)
    if (fixed && Number(fixed[2]) > 0)
      problems.push(`Line ${i + 1} heats to ${fixed[2]} °C whatever is asked: write {${fixed[1]!.startsWith('10') ? 'nozzle' : 'bed'}}.`)
  })
  return [...problems, ...leavesVolume(lines, buildVolume, kinematics === 'tiltedBelt')]
}

/** Where a text drives beyond the build volume, in absolute coordinates. A belt has no end along Z, and its gantry's height is Y. */
function leavesVolume(lines: readonly string[], volume: readonly [number, number, number], isBelt: boolean): string[] {
  const most = isBelt ? { X: volume[0], Y: volume[2], Z: volume[1] } : { X: volume[0], Y: volume[1], Z: volume[2] }
  const problems: string[] = []
  let relative = false
  lines.forEach((line, i) => {
    if (/^G91\b/i.test(line)) relative = true
    if (/^G90\b/i.test(line)) relative = false
    if (relative || !/^G[01]\b/i.test(line)) return
    for (const [, axis, value] of line.matchAll(/([XYZ])(-?\d+(?:\.\d+)?)/gi)) {
      const limit = most[axis!.toUpperCase() as keyof typeof most]
      if (Number(value) < 0 || Number(value) > limit)
        problems.push(`Line ${i + 1} drives to ${axis!.toUpperCase()} ${value}, outside 0 to ${limit} mm.`)
    }
  })
  return problems
}
