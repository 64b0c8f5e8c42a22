import { Canvas, useThree } from '@react-three/fiber'
import type { Placement } from '@sable/core/mesh/place'
import { Component, type ReactNode, useEffect, useMemo, useState } from 'react'
import { BufferAttribute, BufferGeometry } from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { predictionPool } from '../../predictions/predictionStore'
import { useTheme } from '../../ui/theme'

interface Props {
  readonly partId: string
  readonly contentKey: string
  readonly fileName: string
  readonly placement: Placement
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
        <Scene geometry={geometry} />
      </Canvas>
    </NeedsWebGl>
  )
}

function Scene({ geometry }: { geometry: BufferGeometry }) {
  const { camera, gl, invalidate } = useThree()
  const theme = useTheme((state) => state.theme)
  const { scale, middle } = useMemo(() => {
    geometry.computeBoundingSphere()
    const sphere = geometry.boundingSphere
    return { scale: sphere ? 1 / sphere.radius : 1, middle: sphere?.center ?? { x: 0, y: 0, z: 0 } }
  }, [geometry])
  useEffect(() => {
    camera.position.set(2.6, -3.0, 2.2)
    const controls = new OrbitControls(camera, gl.domElement)
    controls.enableZoom = false
    controls.enablePan = false
    controls.addEventListener('change', () => invalidate())
    controls.update()
    return () => controls.dispose()
  }, [camera, gl, invalidate])
  return (
    <>
      <hemisphereLight args={['#fff4e2', theme === 'dark' ? '#2b2622' : '#8d8272', 1.5]} />
      <directionalLight position={[3, -4, 6]} intensity={2.2} />
      <mesh geometry={geometry} scale={scale} position={[-middle.x * scale, -middle.y * scale, -middle.z * scale]}>
        <meshStandardMaterial color="#c9b79d" roughness={0.75} flatShading />
      </mesh>
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

/** Without WebGL there is no picture, but everything else works. */
class NeedsWebGl extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false }
  static getDerivedStateFromError() {
    return { failed: true }
  }
  override render() {
    return this.state.failed ? <p className="p-2 text-[11px] text-muted">The picture needs WebGL.</p> : this.props.children
  }
}
