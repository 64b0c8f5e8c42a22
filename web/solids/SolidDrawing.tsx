import { Canvas, type ThreeEvent, useThree } from '@react-three/fiber'
import type { BearsMask } from '@sable/core/views/bearsMask'
import { type ReactNode, useCallback, useEffect, useMemo } from 'react'
import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  FloatType,
  LinearFilter,
  NearestFilter,
  PerspectiveCamera,
  RedFormat,
  RGBAFormat,
  ShaderMaterial,
  Vector3,
  Vector4,
} from 'three'
import { type ScaleName, scaleColour } from '../charts/palettes'
import { useTheme } from '../ui/theme'
import { NeedsWebGl } from './NeedsWebGl'
import { LineMesh, type Lines, type Patch, PatchMesh } from './overlays'
import { SharedView } from './sharedView'
import { useOrbit } from './useOrbit'

type Triple = readonly [number, number, number]

/** Where solids are looked at from: directions and lengths are those of a part scaled to radius 1 about its middle. */
export interface SolidLook {
  readonly from: Triple
  readonly target: Triple
}
export type SolidView = SharedView<SolidLook>
export const solidView = (): SolidView => new SharedView<SolidLook>({ from: [2.75, -3.5, 2.3], target: [0, 0, 0] })

/** Turns about the part by degrees, or comes nearer by a factor. */
export function turnBy(view: SolidView, azimuthDeg: number, elevationDeg: number, nearer = 1): void {
  const { from, target } = view.now
  const offset = new Vector3(...from).sub(new Vector3(...target))
  const length = offset.length() / nearer
  const azimuth = Math.atan2(offset.y, offset.x) + (azimuthDeg * Math.PI) / 180
  const lift = Math.asin(offset.z / offset.length()) + (elevationDeg * Math.PI) / 180
  const elevation = Math.max(-1.54, Math.min(1.54, lift))
  const flat = length * Math.cos(elevation)
  view.turn({
    target,
    from: [target[0] + flat * Math.cos(azimuth), target[1] + flat * Math.sin(azimuth), target[2] + length * Math.sin(elevation)],
  })
}

/** Even steps along a direction, from low to high, mm. */
export interface Along {
  readonly along: Triple
  readonly low: number
  readonly high: number
}

/** A part and how it is coloured. */
export interface Solid {
  /** Nine coordinates a facet, mm. */
  readonly corners: Float32Array
  /** Share of the scale for each facet, or for even steps along a direction; not a number for none. */
  readonly shares: Float32Array | undefined
  readonly by: 'facet' | 'nothing' | Along
  readonly scale: ScaleName
  /** What wears the map of steps along a direction; all does without. */
  readonly only?: BearsMask | undefined
  /** How far each corner moves, like corners. */
  readonly moved?: Float32Array | undefined
}

export interface Touch {
  readonly facet: number
  readonly at: Triple
  /** Where it is in the window. */
  readonly x: number
  readonly y: number
}

interface Props {
  readonly label: string
  readonly solid: Solid
  /** Points that are drawn over it, mm. */
  readonly points?: Float32Array | undefined
  readonly patches?: readonly Patch[]
  readonly lines?: readonly Lines[]
  /** How many times as far as it moves it is drawn moved. */
  readonly times?: number
  readonly view: SolidView
  readonly onTouch?: (touch: Touch | undefined) => void
  readonly onClick?: (touch: Touch) => void
  /** Drawn over the part, which is scaled to radius 1 about its middle and reaches this far along each axis. */
  readonly over?: (half: Vector3) => ReactNode
}

/** A part in three dimensions wearing a map; dragging turns it, the wheel comes nearer. */
export function SolidDrawing({ label, ...props }: Props) {
  return (
    <NeedsWebGl>
      <Canvas
        frameloop="demand"
        dpr={[1, 2]}
        gl={{ preserveDrawingBuffer: true }}
        camera={{ fov: LENS, up: [0, 0, 1], near: 0.05, far: 100 }}
        aria-label={label}
        role="img"
      >
        <Scene {...props} />
      </Canvas>
    </NeedsWebGl>
  )
}

const vertexShader = `
  in float share;
  in vec3 moved;
  uniform float times;
  out float ownShare;
  out vec3 place;
  out vec3 seen;
  void main() {
    ownShare = share;
    place = position;
    vec4 at = modelViewMatrix * vec4(position + times * moved, 1.0);
    seen = at.xyz;
    gl_Position = projectionMatrix * at;
  }
`
const fragmentShader = `
  in float ownShare;
  in vec3 place;
  in vec3 seen;
  uniform sampler2D ramp;
  uniform sampler2D steps;
  uniform vec3 along;
  uniform float low;
  uniform float high;
  uniform int by;
  uniform bool partly;
  uniform sampler2D only;
  uniform vec3 across;
  uniform vec4 extent;
  uniform vec3 bare;
  out vec4 result;
  void main() {
    vec3 normal = normalize(cross(dFdx(seen), dFdy(seen)));
    float light = 0.52 + 0.48 * clamp(dot(normal, normalize(vec3(0.25, 0.5, 1.0))), 0.0, 1.0);
    float share = by == 0 ? ownShare : texture(steps, vec2((dot(place, along) - low) / (high - low), 0.5)).r;
    bool none = by == 2 || share < 0.0;
    if (partly) {
      vec2 where = vec2((dot(place, across) - extent.x) / (extent.y - extent.x), (dot(place, along) - extent.z) / (extent.w - extent.z));
      none = none || texture(only, where).r < 0.5;
    }
    vec3 colour = none ? bare : texture(ramp, vec2(share, 0.5)).rgb;
    result = vec4(colour * light, 1.0);
  }
`

function Scene({ solid, points, patches = [], lines = [], times = 0, view, onTouch, onClick, over }: Omit<Props, 'label'>) {
  const invalidate = useThree((state) => state.invalidate)
  const theme = useTheme((state) => state.theme)
  useFittingLens()
  const { corners, shares, by, scale, only, moved } = solid
  const shape = useMemo(() => {
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(corners, 3))
    geometry.computeBoundingSphere()
    geometry.computeBoundingBox()
    const { radius, center } = geometry.boundingSphere!
    const size = 1 / Math.max(1e-6, radius)
    return { geometry, size, middle: center, half: geometry.boundingBox!.getSize(new Vector3()).multiplyScalar(size / 2) }
  }, [corners])
  useEffect(() => () => shape.geometry.dispose(), [shape])
  const material = useMemo(
    () =>
      new ShaderMaterial({
        glslVersion: '300 es',
        vertexShader,
        fragmentShader,
        // A hair behind what is drawn on it.
        polygonOffset: true,
        polygonOffsetFactor: 2,
        polygonOffsetUnits: 2,
        uniforms: {
          ramp: { value: null },
          steps: { value: null },
          along: { value: new Vector3(0, 0, 1) },
          low: { value: 0 },
          high: { value: 1 },
          by: { value: 0 },
          partly: { value: false },
          only: { value: null },
          across: { value: new Vector3(1, 0, 0) },
          extent: { value: new Vector4(0, 1, 0, 1) },
          bare: { value: new Vector3() },
          times: { value: 0 },
        },
      }),
    [],
  )
  useEffect(() => () => material.dispose(), [material])
  useEffect(() => {
    const count = corners.length / 3
    const own = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      const share = by === 'facet' ? shares?.[Math.floor(i / 3)] : 0
      own[i] = share === undefined || Number.isNaN(share) ? -1 : Math.max(0, Math.min(1, share))
    }
    shape.geometry.setAttribute('share', new BufferAttribute(own, 1))
    const ramp = rampTexture(scale)
    const steps = stepTexture(typeof by === 'object' ? shares : undefined)
    material.uniforms.ramp!.value = ramp
    material.uniforms.steps!.value = steps
    const parts = maskTexture(only)
    material.uniforms.only!.value = parts
    material.uniforms.partly!.value = only !== undefined && typeof by === 'object'
    if (only) {
      material.uniforms.across!.value.set(...only.across)
      material.uniforms.extent!.value.set(only.acrossLow, only.acrossHigh, only.low, only.high)
    }
    material.uniforms.by!.value = by === 'facet' ? 0 : by === 'nothing' ? 2 : 1
    if (typeof by === 'object') {
      material.uniforms.along!.value.set(...by.along)
      material.uniforms.low!.value = by.low
      material.uniforms.high!.value = Math.max(by.low + 1e-6, by.high)
    }
    invalidate()
    return () => {
      ramp.dispose()
      steps.dispose()
      parts.dispose()
    }
  }, [corners, shares, by, scale, only, shape, material, invalidate])
  useEffect(() => {
    material.uniforms.bare!.value.set(...(theme === 'dark' ? ([0.44, 0.41, 0.37] as const) : ([0.78, 0.75, 0.7] as const)))
    invalidate()
  }, [material, theme, invalidate])
  useEffect(() => {
    shape.geometry.setAttribute('moved', new BufferAttribute(moved ?? new Float32Array(corners.length), 3))
    invalidate()
  }, [corners, moved, shape, invalidate])
  useEffect(() => {
    material.uniforms.times!.value = times
    invalidate()
  }, [material, times, invalidate])
  const dots = useMemo(() => {
    if (!points) return undefined
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(points, 3))
    return geometry
  }, [points])
  useEffect(() => () => dots?.dispose(), [dots])
  useEffect(() => invalidate())

  useOrbit(
    useCallback(
      (orbit) => {
        orbit.minDistance = 0.4
        orbit.maxDistance = 12
        const leave = view.join(({ from, target }) => {
          orbit.target.set(...target)
          orbit.object.position.set(...from)
          orbit.update()
          invalidate()
        })
        orbit.addEventListener('change', () => view.turn({ from: orbit.object.position.toArray(), target: orbit.target.toArray() }, leave))
        return leave
      },
      [view, invalidate],
    ),
  )

  const touchOf = ({ faceIndex, point, nativeEvent }: ThreeEvent<MouseEvent | PointerEvent>): Touch | undefined => {
    if (faceIndex === undefined || faceIndex === null) return undefined
    const { size, middle } = shape
    return {
      facet: faceIndex,
      at: [point.x / size + middle.x, point.y / size + middle.y, point.z / size + middle.z],
      x: nativeEvent.clientX,
      y: nativeEvent.clientY,
    }
  }
  return (
    <>
      <group scale={shape.size} position={shape.middle.clone().multiplyScalar(-shape.size)}>
        <mesh
          geometry={shape.geometry}
          material={material}
          {...(onTouch
            ? {
                // While a button is down the part is being turned, and what lies under the pointer does not matter.
                onPointerMove: (event: ThreeEvent<PointerEvent>) => event.nativeEvent.buttons === 0 && onTouch(touchOf(event)),
                onPointerOut: () => onTouch(undefined),
              }
            : {})}
          {...(onClick
            ? {
                onClick: (event: ThreeEvent<MouseEvent>) => {
                  const touch = event.delta <= 4 ? touchOf(event) : undefined
                  if (touch) onClick(touch)
                },
              }
            : {})}
        />
        {patches.map((patch, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no names, and keep their order.
          <PatchMesh key={i} {...patch} />
        ))}
        {lines.map((own) => (
          <LineMesh key={own.colour} {...own} />
        ))}
        {dots && (
          <points geometry={dots} renderOrder={1}>
            <pointsMaterial size={4} sizeAttenuation={false} color={theme === 'dark' ? '#f0a83c' : '#a85c00'} />
          </points>
        )}
      </group>
      {over?.(shape.half)}
    </>
  )
}

/** Angle of what is seen from top to bottom, degrees. */
const LENS = 26

/** In a picture that is higher than wide the part is seen as small as it takes to fit. */
function useFittingLens(): void {
  const camera = useThree((state) => state.camera)
  const aspect = useThree(({ size }) => size.width / Math.max(1, size.height))
  useEffect(() => {
    if (!(camera instanceof PerspectiveCamera)) return
    const half = Math.tan((LENS * Math.PI) / 360) / Math.min(1, aspect)
    camera.fov = (360 / Math.PI) * Math.atan(half)
    camera.updateProjectionMatrix()
  }, [camera, aspect])
}

function rampTexture(scale: ScaleName): DataTexture {
  const bytes = new Uint8Array(4 * 256)
  for (let i = 0; i < 256; i++) bytes.set([...scaleColour(scale, i / 255), 255], 4 * i)
  const texture = new DataTexture(bytes, 256, 1, RGBAFormat)
  texture.magFilter = LinearFilter
  texture.needsUpdate = true
  return texture
}

function maskTexture(only: BearsMask | undefined): DataTexture {
  const values = Float32Array.from(only?.mask ?? [1])
  const texture = new DataTexture(values, only?.cells ?? 1, only?.sections ?? 1, RedFormat, FloatType)
  texture.magFilter = NearestFilter
  texture.needsUpdate = true
  return texture
}

function stepTexture(shares: Float32Array | undefined): DataTexture {
  const values = Float32Array.from(shares ?? [-1], (share) => (Number.isNaN(share) ? -1 : Math.max(0, Math.min(1, share))))
  const texture = new DataTexture(values, values.length, 1, RedFormat, FloatType)
  texture.magFilter = NearestFilter
  texture.needsUpdate = true
  return texture
}
