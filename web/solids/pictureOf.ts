import {
  BufferAttribute,
  BufferGeometry,
  DirectionalLight,
  HemisphereLight,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
} from 'three'
import { scaleColour } from '../charts/palettes'

const BARE = [0.76, 0.71, 0.63] as const

/**
 * A small picture of a part as it lies, coloured where it hangs over: the farther, the brighter. Several pictures are made by one
 * renderer, since a browser has few of them to give.
 *
 * @param corners nine coordinates a facet, mm
 * @returns addresses of the pictures; none where there is no WebGL
 */
export function picturesOf(parts: readonly Float32Array[], width: number, height: number): string[] {
  let renderer: WebGLRenderer
  try {
    renderer = new WebGLRenderer({ alpha: true, antialias: true, preserveDrawingBuffer: true })
  } catch {
    return []
  }
  renderer.setSize(width, height)
  renderer.setPixelRatio(2)
  const camera = new PerspectiveCamera(26, width / height, 0.05, 100)
  camera.up.set(0, 0, 1)
  camera.position.set(2.75, -3.5, 2.3)
  camera.lookAt(0, 0, 0)
  const material = new MeshLambertMaterial({ vertexColors: true, flatShading: true })
  const light = new DirectionalLight('#ffffff', 1.6)
  light.position.set(3, -4, 6)
  const pictures = parts.map((corners) => {
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(corners, 3))
    geometry.computeVertexNormals()
    geometry.computeBoundingSphere()
    const normals = geometry.getAttribute('normal')
    const colours = new Float32Array(corners.length)
    for (let corner = 0; corner < corners.length / 3; corner++) {
      const over = Math.asin(Math.max(-1, Math.min(1, -normals.getZ(corner))))
      const rgb = over > 0.05 ? scaleColour('viridis', over / (Math.PI / 2)).map((part) => (part / 255) ** 2.2) : BARE
      colours.set(rgb, 3 * corner)
    }
    geometry.setAttribute('color', new BufferAttribute(colours, 3))
    const body = new Mesh(geometry, material)
    const { radius, center } = geometry.boundingSphere!
    const scale = 1 / Math.max(1e-6, radius)
    body.scale.setScalar(scale)
    body.position.copy(center).multiplyScalar(-scale)
    const scene = new Scene()
    scene.add(body, light, new HemisphereLight('#ffffff', '#9c9080', 1.6))
    renderer.render(scene, camera)
    const address = renderer.domElement.toDataURL()
    geometry.dispose()
    return address
  })
  material.dispose()
  renderer.dispose()
  renderer.forceContextLoss()
  return pictures
}
