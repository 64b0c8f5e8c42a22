import { download, fileNameFrom } from './download'

/** What a drawn element looks like, as attributes that it keeps outside of the page. */
const LOOKS = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
] as const

/** A chart as an SVG file of its own: everything that style sheets gave it is written into it. */
export function svgText(chart: SVGSVGElement): string {
  const copy = chart.cloneNode(true) as SVGSVGElement
  const [originals, copies] = [
    [chart, ...chart.querySelectorAll('*')],
    [copy, ...copy.querySelectorAll('*')],
  ]
  for (const [i, original] of originals.entries()) {
    const own = copies[i]!
    const style = getComputedStyle(original)
    for (const look of LOOKS) {
      const value = style.getPropertyValue(look)
      if (value !== '') own.setAttribute(look, value)
    }
    own.removeAttribute('class')
    own.removeAttribute('style')
  }
  const { width, height } = chart.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`)
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  ground.setAttribute('width', '100%')
  ground.setAttribute('height', '100%')
  ground.setAttribute('fill', getComputedStyle(document.documentElement).getPropertyValue('--ground').trim())
  copy.prepend(ground)
  return new XMLSerializer().serializeToString(copy)
}

/** The charts within an element that are drawings of lines and text; pictures of solids are not. */
export const chartsIn = (element: HTMLElement): SVGSVGElement[] =>
  [...element.querySelectorAll<Element>('[data-chart]')].flatMap((marked) => {
    const svg = marked instanceof SVGSVGElement ? marked : marked.querySelector('svg')
    return svg ? [svg] : []
  })

/** Saves everything that an element shows as a PNG, twice as fine as the screen's own pixels. */
export async function savePng(element: HTMLElement, name: string): Promise<void> {
  const { toBlob } = await import('html-to-image')
  const blob = await toBlob(element, {
    pixelRatio: 2,
    backgroundColor: getComputedStyle(document.documentElement).getPropertyValue('--ground').trim(),
    // Buttons to save with have no place in what is saved.
    filter: (node) => !(node instanceof HTMLElement && node.dataset.unsaved === 'true'),
  })
  if (blob) download(`${fileNameFrom(name)}.png`, blob)
}

/** Saves the charts of an element as SVG, or all of it in one where it has none of its own. */
export async function saveSvg(element: HTMLElement, name: string): Promise<void> {
  const charts = chartsIn(element)
  for (const [i, chart] of charts.entries())
    download(`${fileNameFrom(name)}${charts.length > 1 ? `-${i + 1}` : ''}.svg`, svgText(chart), 'image/svg+xml')
  if (charts.length > 0) return
  const { toSvg } = await import('html-to-image')
  const address = await toSvg(element, { backgroundColor: getComputedStyle(document.documentElement).getPropertyValue('--ground').trim() })
  download(`${fileNameFrom(name)}.svg`, textOf(address), 'image/svg+xml')
}

const textOf = (dataAddress: string): string => decodeURIComponent(dataAddress.slice(dataAddress.indexOf(',') + 1))
