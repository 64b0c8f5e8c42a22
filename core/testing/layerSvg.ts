import type { Contours } from '../geometry/contours'
import type { Regions } from '../regions/findRegions'
import type { Layers } from '../slicing/layers'
import { features, isLaid, type Toolpath } from '../toolpath/toolpath'

/** Colours by what a line is, told apart by lightness too. */
const inks: Readonly<Record<string, string>> = {
  outerWall: '#1d1916',
  innerWall: '#7a5c2e',
  thin: '#a8324a',
  topBottom: '#2f6f8f',
  bridge: '#0f8a6a',
  ironing: '#8a8a8a',
  infill: '#c98a1b',
  support: '#9a86c8',
  supportTop: '#6d55a8',
  foot: '#b9b1a3',
}

export interface LaidLayer {
  readonly layers: Layers
  readonly regions: Pick<Regions, 'topBottom' | 'infill'>
  readonly path: Toolpath
}

/**
 * A layer as a picture, for looking at what a test or a file gives: its outlines, what was divided into tops, bottoms and infill, and every
 * line as it is laid, with its width. SVG, in mm, y upwards.
 */
export function layerSvg({ layers, regions, path }: LaidLayer, layer: number): string {
  const { outlines } = layers
  const [minX, minY, maxX, maxY] = extentOf(outlines, layer)
  const margin = 2
  const lines: string[] = []
  const { x, y, width, feature, layerStart } = path
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    const ink = isLaid(feature[m]!) ? inks[features[feature[m]!]!] : undefined
    const end = `x1="${x[m]!.toFixed(3)}" y1="${y[m]!.toFixed(3)}" x2="${x[m + 1]!.toFixed(3)}" y2="${y[m + 1]!.toFixed(3)}"`
    lines.push(
      ink === undefined
        ? `<line ${end} stroke="#bbb" stroke-width="0.04" stroke-dasharray="0.3 0.2"/>`
        : `<line ${end} stroke="${ink}" stroke-width="${(0.9 * width[m]!).toFixed(3)}" stroke-opacity="0.75"/>`,
    )
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${minX - margin} ${-maxY - margin} ${maxX - minX + 2 * margin} ${maxY - minY + 2 * margin}" width="1200" fill-rule="evenodd" stroke-linecap="round">
<rect x="${minX - margin}" y="${-maxY - margin}" width="100%" height="100%" fill="#fff"/>
<g transform="scale(1 -1)">
<path d="${outlineOf(outlines, layer)}" fill="#f1ece2" stroke="#c9bfae" stroke-width="0.05"/>
<path d="${outlineOf(regions.topBottom, layer)}" fill="#d9e8ef"/>
<path d="${outlineOf(regions.infill, layer)}" fill="#f6e6c4"/>
${lines.join('\n')}
</g>
</svg>
`
}

function outlineOf({ xy, polygonStart, groupStart }: Contours, group: number): string {
  let d = ''
  for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
    for (let i = polygonStart[p]!; i < polygonStart[p + 1]!; i++)
      d += `${i === polygonStart[p] ? 'M' : 'L'}${xy[2 * i]!.toFixed(3)} ${xy[2 * i + 1]!.toFixed(3)}`
    d += 'Z'
  }
  return d
}

function extentOf({ xy, polygonStart, groupStart }: Contours, group: number): [number, number, number, number] {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = polygonStart[groupStart[group]!]!; i < polygonStart[groupStart[group + 1]!]!; i++) {
    minX = Math.min(minX, xy[2 * i]!)
    maxX = Math.max(maxX, xy[2 * i]!)
    minY = Math.min(minY, xy[2 * i + 1]!)
    maxY = Math.max(maxY, xy[2 * i + 1]!)
  }
  return minX <= maxX ? [minX, minY, maxX, maxY] : [0, 0, 1, 1]
}
