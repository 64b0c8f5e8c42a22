import { type Contours, ContoursBuilder } from './contours'
import type { PolygonKernel, PolygonOps, Region } from './polygon'

/** Contours of a single group from a region. */
export function oneGroup(kernel: PolygonKernel, make: (ops: PolygonOps) => Region): Contours {
  const out = new ContoursBuilder()
  kernel.run((ops) => ops.write(make(ops), out))
  out.endGroup()
  return out.finish()
}
