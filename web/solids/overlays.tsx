import { useEffect, useMemo } from 'react'
import { BufferAttribute, BufferGeometry, MeshBasicMaterial } from 'three'

/** Facets that stand out on a part. */
export interface Patch {
  readonly corners: Float32Array
  readonly colour: string
  /** It stands round some of the part, which is seen through it. */
  readonly isAround?: boolean
}

/** Lines over a part, two points each. */
export interface Lines {
  readonly ends: Float32Array
  readonly colour: string
}

/** Drawn on the part that it belongs to, as if a hair above it. */
export function PatchMesh({ corners, colour, isAround = false }: Patch) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(corners, 3))
    return made
  }, [corners])
  useEffect(() => () => geometry.dispose(), [geometry])
  return <mesh geometry={geometry} material={patchMaterial(colour, isAround)} raycast={noRay} dispose={null} />
}

const materials = new Map<string, MeshBasicMaterial>()

/** Kept for as long as the page: of one that is given up the driver compiles its program anew. */
function patchMaterial(color: string, isAround: boolean): MeshBasicMaterial {
  const key = `${color} ${isAround}`
  const known = materials.get(key)
  if (known) return known
  const made = new MeshBasicMaterial({
    color,
    transparent: true,
    opacity: isAround ? 0.16 : 0.75,
    depthWrite: !isAround,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -2,
  })
  materials.set(key, made)
  return made
}

/** As short lines do, it tells where and which way. */
export function LineMesh({ ends, colour }: Lines) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(ends, 3))
    return made
  }, [ends])
  useEffect(() => () => geometry.dispose(), [geometry])
  return (
    <lineSegments geometry={geometry} raycast={noRay}>
      <lineBasicMaterial color={colour} />
    </lineSegments>
  )
}

/** What is drawn over the part is not what is clicked. */
const noRay = (): void => {}
