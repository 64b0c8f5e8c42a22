import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useRef } from 'react'
import {
  BufferAttribute,
  DoubleSide,
  InstancedBufferAttribute,
  InstancedBufferGeometry,
  MOUSE,
  type OrthographicCamera,
  ShaderMaterial,
  TOUCH,
  Vector3,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { NeedsWebGl } from '../solids/NeedsWebGl'
import type { Pieces } from '../solids/pieceList'
import { pieceAt } from '../solids/pieces'
import { SharedView } from '../solids/sharedView'
import { useTheme } from '../ui/theme'

/** Where a flat drawing is looked at: its middle in mm, and pixels per mm. */
export interface FlatLook {
  readonly x: number
  readonly y: number
  readonly zoom: number
}
export type FlatView = SharedView<FlatLook>
export const flatView = (): FlatView => new SharedView({ x: 0, y: 0, zoom: 1 })
export const zoomBy = (view: FlatView, factor: number): void => view.turn({ ...view.now, zoom: view.now.zoom * factor })

export interface FlatBox {
  readonly low: readonly [number, number]
  readonly high: readonly [number, number]
}

interface Props {
  readonly label: string
  readonly pieces: Pieces
  /** Red, green, blue and opacity of every piece. */
  readonly colours: Uint8Array
  /** What must be in sight at first, mm. */
  readonly box: FlatBox
  /** Pieces that are done, the one in hand by its share; the rest is drawn faintly. */
  readonly done: number
  readonly picked: number | undefined
  readonly onPick: (piece: number | undefined) => void
  /** Drawings that look at the same place. */
  readonly view: FlatView
}

/** Straight lines of real width, drawn flat; the wheel zooms, dragging moves, a click picks. */
export function FlatDrawing({ label, ...props }: Props) {
  return (
    <NeedsWebGl>
      <Canvas
        orthographic
        frameloop="demand"
        dpr={[1, 2]}
        gl={{ preserveDrawingBuffer: true, antialias: false }}
        camera={{ position: [0, 0, 100], near: 1, far: 200, zoom: 4 }}
        aria-label={label}
        role="img"
      >
        <Lines {...props} />
      </Canvas>
    </NeedsWebGl>
  )
}

/** One quad, stretched by the vertex shader over each piece and half its width beyond either end. */
const CORNERS = Float32Array.of(0, -0.5, 1, -0.5, 1, 0.5, 0, 0.5)

const vertexShader = `
  in vec2 corner;
  in vec4 ends;
  in float width;
  in vec4 colour;
  uniform float done;
  uniform float picked;
  uniform vec3 accent;
  out vec4 shade;
  out float across;
  void main() {
    float own = float(gl_InstanceID);
    vec2 a = ends.xy;
    vec2 b = ends.zw;
    float share = clamp(done - own, 0.0, 1.0);
    // The piece in hand is drawn as far as it is done; what comes after it faintly, as a whole.
    if (share > 0.0) b = mix(a, b, share);
    vec2 run = b - a;
    vec2 along = length(run) > 1e-6 ? normalize(run) : vec2(1.0, 0.0);
    vec2 side = vec2(-along.y, along.x);
    vec2 at = mix(a, b, corner.x) + along * (corner.x - 0.5) * width + side * corner.y * width;
    shade = own == picked ? vec4(accent, 1.0) : vec4(colour.rgb, colour.a * (share > 0.0 ? 1.0 : 0.13));
    across = corner.y;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(at, 0.0, 1.0);
  }
`
const fragmentShader = `
  in vec4 shade;
  in float across;
  uniform float edge;
  out vec4 result;
  void main() {
    // Darker at its sides, so that neighbours stay apart; and soft over the last pixel, which costs less than sampling every pixel more than once.
    float rim = smoothstep(0.5, 0.3, abs(across));
    float soft = clamp((0.5 - abs(across)) / max(fwidth(across), 1e-4) + 0.5, 0.0, 1.0);
    result = vec4(shade.rgb * mix(edge, 1.0, rim), shade.a * soft);
  }
`

function Lines({ pieces, colours, box, done, picked, onPick, view }: Omit<Props, 'label'>) {
  const { camera, gl, size, invalidate } = useThree()
  const theme = useTheme((state) => state.theme)
  const controls = useRef<OrbitControls>(undefined)
  const material = useMemo(
    () =>
      new ShaderMaterial({
        glslVersion: '300 es',
        vertexShader,
        fragmentShader,
        uniforms: { done: { value: 0 }, picked: { value: -1 }, accent: { value: new Vector3() }, edge: { value: 0.6 } },
        transparent: true,
        depthTest: false,
        depthWrite: false,
        side: DoubleSide,
      }),
    [],
  )
  useEffect(() => () => material.dispose(), [material])
  const geometry = useMemo(() => {
    const fresh = new InstancedBufferGeometry()
    fresh.setAttribute('corner', new BufferAttribute(CORNERS, 2))
    fresh.setIndex([0, 1, 2, 0, 2, 3])
    fresh.setAttribute('ends', new InstancedBufferAttribute(pieces.ends, 4))
    fresh.setAttribute('width', new InstancedBufferAttribute(pieces.width, 1))
    fresh.instanceCount = pieces.width.length
    return fresh
  }, [pieces])
  useEffect(() => () => geometry.dispose(), [geometry])
  // The two must change in the same picture, or lines of one layer wear colours of another.
  geometry.setAttribute('colour', new InstancedBufferAttribute(colours, 4, true))
  material.uniforms.done!.value = done
  material.uniforms.picked!.value = picked ?? -1
  material.uniforms.edge!.value = theme === 'dark' ? 0.55 : 0.72
  material.uniforms.accent!.value.set(...(theme === 'dark' ? ([0.94, 0.66, 0.24] as const) : ([0.75, 0.42, 0.02] as const)))
  useEffect(() => invalidate())

  useEffect(() => {
    const own = new OrbitControls(camera, gl.domElement)
    own.enableRotate = false
    own.zoomToCursor = true
    own.mouseButtons = { LEFT: MOUSE.PAN, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.PAN }
    own.touches = { ONE: TOUCH.PAN, TWO: TOUCH.DOLLY_PAN }
    controls.current = own
    const leave = view.join((look) => {
      own.target.set(look.x, look.y, 0)
      camera.position.set(look.x, look.y, 100)
      camera.zoom = look.zoom
      camera.updateProjectionMatrix()
      own.update()
      invalidate()
    })
    own.addEventListener('change', () => {
      view.turn({ x: own.target.x, y: own.target.y, zoom: camera.zoom }, leave)
      invalidate()
    })
    return () => {
      leave()
      own.dispose()
    }
  }, [camera, gl, invalidate, view])

  // The whole is in sight again whenever what is drawn has another extent or the window another size.
  useEffect(() => {
    view.home = {
      x: (box.low[0] + box.high[0]) / 2,
      y: (box.low[1] + box.high[1]) / 2,
      zoom: 0.92 * Math.min(size.width / Math.max(1, box.high[0] - box.low[0]), size.height / Math.max(1, box.high[1] - box.low[1])),
    }
    view.goHome()
  }, [box, size.width, size.height, view])

  useEffect(() => {
    let down: readonly [number, number] | undefined
    const onDown = (event: PointerEvent): void => {
      down = [event.clientX, event.clientY]
    }
    const onUp = (event: PointerEvent): void => {
      if (!down || Math.hypot(event.clientX - down[0], event.clientY - down[1]) > 4) return
      const bounds = gl.domElement.getBoundingClientRect()
      const { zoom, position } = camera as OrthographicCamera
      const x = position.x + (event.clientX - bounds.left - bounds.width / 2) / zoom
      const y = position.y - (event.clientY - bounds.top - bounds.height / 2) / zoom
      onPick(pieceAt(pieces, x, y, 5 / zoom))
    }
    gl.domElement.addEventListener('pointerdown', onDown)
    gl.domElement.addEventListener('pointerup', onUp)
    return () => {
      gl.domElement.removeEventListener('pointerdown', onDown)
      gl.domElement.removeEventListener('pointerup', onUp)
    }
  }, [camera, gl, onPick, pieces])

  return <mesh geometry={geometry} material={material} frustumCulled={false} />
}
