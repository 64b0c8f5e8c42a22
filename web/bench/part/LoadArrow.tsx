import { frameOf } from '@sable/core/physics/strength/direction'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { useEffect, useMemo } from 'react'
import { ArrowHelper, type Material, Vector3 } from 'three'

type Load = Purpose['load']

const LENGTH = 0.55

/** Where the load acts and which way: it ends at the part when it presses, begins there when it pulls. */
function arrowsOf(load: Load, half: Vector3): { readonly arrows: { from: Vector3; way: Vector3 }[]; readonly held: Vector3[] } {
  const unit = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const
  const along = new Vector3(...(load.axis === 'free' ? frameOf(load).along : unit[load.axis as 'x' | 'y' | 'z']))
  const reach = Math.abs(along.x) * half.x + Math.abs(along.y) * half.y + Math.abs(along.z) * half.z
  const at = (share: number): Vector3 => along.clone().multiplyScalar(reach * (2 * share - 1))
  const [low, high] = [at(load.heldTo / 200), at((load.loadedFrom + 100) / 200)]
  // Bending is in the weaker direction, which is not known here: downward is drawn, or sideways where the part stands.
  const down = Math.abs(along.z) > 0.8 ? new Vector3(1, 0, 0) : new Vector3(0, 0, -1)
  const onto = (point: Vector3, way: Vector3) => ({ from: point.clone().addScaledVector(way, -LENGTH), way })
  switch (load.kind) {
    case 'pull':
      return { arrows: [{ from: high, way: along }], held: [low] }
    case 'crush':
      return { arrows: [onto(high, along.clone().negate())], held: [low] }
    case 'bend':
      return { arrows: [onto(high, down)], held: [low] }
    case 'bendHigh':
      return { arrows: [onto(low, down)], held: [high] }
    case 'threePoint':
      return { arrows: [onto(at(0.5), down)], held: [low, high] }
  }
}

/** The stated load drawn over the part: an arrow where it acts, a knob where the part is held. */
export function LoadArrow({ load, half, color }: { load: Load; half: Vector3; color: string }) {
  const { arrows, held } = useMemo(() => arrowsOf(load, half), [load, half])
  const drawn = useMemo(
    () =>
      arrows.map(({ from, way }) => {
        const arrow = new ArrowHelper(way.clone().normalize(), from, LENGTH, color, 0.24, 0.16)
        // It is seen also where it lies within the part.
        for (const part of [arrow.line, arrow.cone]) (part.material as Material).depthTest = false
        return arrow
      }),
    [arrows, color],
  )
  useEffect(() => () => drawn.forEach((arrow) => void arrow.dispose()), [drawn])
  return (
    <>
      {drawn.map((arrow) => (
        <primitive key={arrow.uuid} object={arrow} />
      ))}
      {held.map((point) => (
        <mesh key={point.toArray().join()} position={point} renderOrder={1}>
          <sphereGeometry args={[0.08, 16, 12]} />
          <meshBasicMaterial color={color} wireframe depthTest={false} />
        </mesh>
      ))}
    </>
  )
}
