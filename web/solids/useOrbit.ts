import { useThree } from '@react-three/fiber'
import { useEffect } from 'react'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'

/**
 * The one way in which a part is turned: dragging goes round it, each turn draws anew.
 *
 * @param begin sets up how near it may be come to and from where it is seen; may return what ends that. Keep it between drawings.
 */
export function useOrbit(begin: (orbit: OrbitControls) => (() => void) | undefined): void {
  const { camera, gl, invalidate } = useThree()
  useEffect(() => {
    const orbit = new OrbitControls(camera, gl.domElement)
    orbit.enablePan = false
    orbit.addEventListener('change', () => invalidate())
    const end = begin(orbit)
    return () => {
      end?.()
      orbit.dispose()
    }
  }, [camera, gl, invalidate, begin])
}
