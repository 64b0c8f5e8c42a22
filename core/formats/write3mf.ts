import { strToU8, zipSync } from 'fflate'
import { type Mesh, triangleCount } from '../mesh/mesh'

const TYPES =
  '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>'
const RELATIONS =
  '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="model" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>'

/** Writes a mesh as a 3MF file of one object, in mm (3MF Core Specification 1.3). */
export function write3mf(mesh: Mesh, name: string): Uint8Array {
  const { positions: p, triangles: t } = mesh
  const parts = [
    '<?xml version="1.0" encoding="UTF-8"?><model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>',
    `<object id="1" type="model" name="${escaped(name)}"><mesh><vertices>`,
  ]
  for (let v = 0; v < p.length; v += 3) parts.push(`<vertex x="${short(p[v]!)}" y="${short(p[v + 1]!)}" z="${short(p[v + 2]!)}"/>`)
  parts.push('</vertices><triangles>')
  for (let i = 0; i < triangleCount(mesh); i++) parts.push(`<triangle v1="${t[3 * i]}" v2="${t[3 * i + 1]}" v3="${t[3 * i + 2]}"/>`)
  parts.push('</triangles></mesh></object></resources><build><item objectid="1"/></build></model>')
  return zipSync({ '[Content_Types].xml': strToU8(TYPES), '_rels/.rels': strToU8(RELATIONS), '3D/3dmodel.model': strToU8(parts.join('')) })
}

/** A hundredth of a micrometre is nothing to a nozzle. */
const short = (value: number): string => String(Math.round(value * 1e5) / 1e5)

const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
