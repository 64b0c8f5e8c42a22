import { Canvas, useThree } from '@react-three/fiber'
import type { Placement } from '@sable/core/mesh/place'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { useEffect, useMemo, useState } from 'react'
import { Box3, BufferAttribute, BufferGeometry, Vector3 } from 'three'
import type { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { predictionPool } from '../../predictions/predictionStore'
import { NeedsWebGl } from '../../solids/NeedsWebGl'
import { useOrbit } from '../../solids/useOrbit'
import { useTheme } from '../../ui/theme'
import { LoadArrow } from './LoadArrow'

interface Props {
  readonly partId: string
  readonly contentKey: string
  readonly fileName: string
  readonly placement: Placement
  /** Drawn over the part when its axis is known. */
  readonly load?: Purpose['load'] | undefined
}

/** A small picture of the part as it lies; drag turns it. */
export default function PartThumbnail(props: Props) {
  const geometry = useGeometry(props)
  if (!geometry) return null
  return (
    <NeedsWebGl>
      <Canvas
        frameloop="demand"
        dpr={[1, 2]}
        camera={{ fov: 28, up: [0, 0, 1], near: 0.1, far: 100 }}
        aria-label="Picture of the part; drag to turn it"
        role="img"
      >
        <Scene geometry={geometry} load={props.load} />
      </Canvas>
    </NeedsWebGl>
  )
}

/** From in front and above, near enough to fill the picture. */
const fromTheFront = (orbit: OrbitControls): undefined => {
  orbit.enableZoom = false
  orbit.object.position.set(2.6, -3.0, 2.2)
  orbit.update()
}

function Scene({ geometry, load }: { geometry: BufferGeometry; load: Props['load'] }) {
  const invalidate = useThree((state) => state.invalidate)
  const theme = useTheme((state) => state.theme)
  const { scale, middle, half } = useMemo(() => {
    geometry.computeBoundingSphere()
    geometry.computeBoundingBox()
    const sphere = geometry.boundingSphere
    const scale = sphere ? 1 / sphere.radius : 1
    const half = (geometry.boundingBox ?? new Box3()).getSize(new Vector3()).multiplyScalar(scale / 2)
    return { scale, middle: sphere?.center ?? { x: 0, y: 0, z: 0 }, half }
  }, [geometry])
  // Nothing else asks for a new picture when only the load changes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the load is what the picture follows.
  useEffect(() => invalidate(), [invalidate, load, theme])
  useOrbit(fromTheFront)
  return (
    <>
      <hemisphereLight args={['#fff4e2', theme === 'dark' ? '#2b2622' : '#8d8272', 1.5]} />
      <directionalLight position={[3, -4, 6]} intensity={2.2} />
      <mesh geometry={geometry} scale={scale} position={[-middle.x * scale, -middle.y * scale, -middle.z * scale]}>
        <meshStandardMaterial color="#c9b79d" roughness={0.75} flatShading />
      </mesh>
      {load && load.axis !== 'weakest' && <LoadArrow load={load} half={half} color={theme === 'dark' ? '#f0a83c' : '#8a5200'} />}
    </>
  )
}

function useGeometry({ partId, contentKey, fileName, placement }: Props): BufferGeometry | undefined {
  const [geometry, setGeometry] = useState<BufferGeometry>()
  useEffect(() => {
    let wanted = true
    predictionPool()
      .anyWorker.meshForView({ partId, contentKey, fileName, placement })
      .then(({ positions, triangles }) => {
        if (!wanted) return
        const fresh = new BufferGeometry()
        fresh.setAttribute('position', new BufferAttribute(positions, 3))
        fresh.setIndex(new BufferAttribute(triangles, 1))
        setGeometry(fresh)
      })
      // The figures say what is wrong with the file; the picture just stays away.
      .catch(() => setGeometry(undefined))
    return () => {
      wanted = false
    }
  }, [partId, contentKey, fileName, placement])
  useEffect(() => () => geometry?.dispose(), [geometry])
  return geometry
}
