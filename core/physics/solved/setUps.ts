import type { Ready } from '../../elements/ready'
import type { Plastic } from './limits'
import type { Voxels } from './voxels'

/** What a structure that is ready was made of. */
export interface SetUp {
  readonly voxels: Voxels
  readonly plastic: Pick<Plastic, 'modulus' | 'acrossLines'>
  /** Cells of the voxels that are in its mesh, and 1 for each movement of a node that is none. */
  readonly kept: Int32Array
  readonly held: Uint8Array
  readonly ready: Ready
}

/** Keeps the structure that was set up last, so that another load on the same lines, held alike, is only solved. */
export class SetUps {
  private last: SetUp | undefined

  /** Who takes it has it alone, for it is worked in; and puts it back. */
  take({ voxels, plastic, kept, held }: Omit<SetUp, 'ready'>): SetUp | undefined {
    const { last } = this
    if (last?.voxels !== voxels || last.plastic.modulus !== plastic.modulus || last.plastic.acrossLines !== plastic.acrossLines)
      return undefined
    if (!isSame(last.kept, kept) || !isSame(last.held, held)) return undefined
    this.last = undefined
    return last
  }

  put(setUp: SetUp): void {
    this.last = setUp
  }
}

const isSame = (a: ArrayLike<number>, b: ArrayLike<number>): boolean => {
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}
