import { demoParts } from '@sable/demo/scenario'
import type { Mesh } from '../mesh/mesh'
import { place } from '../mesh/place'
import { planMotion } from '../motion/planMotion'
import type { Toolpath } from '../toolpath/toolpath'
import type { LaidOut } from './layOut'
import { setupOf } from './setups'
import { blockMesh, joined, moved } from './solids'

/** Length of a move in its layer, mm. */
export const lengthOf = ({ x, y }: Toolpath, m: number): number => Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
/** All moves of a feature. */
export const movesOf = (path: Toolpath, feature: number): number[] => [...path.feature.keys()].filter((m) => path.feature[m] === feature)
/** Length of a feature, mm. */
export const total = (path: Toolpath, feature: number): number => movesOf(path, feature).reduce((sum, m) => sum + lengthOf(path, m), 0)
/** Printing time, s. */
export const timeOf = ({ path, settings }: LaidOut, setup = setupOf()): number =>
  planMotion(path, () => settings, setup.printer).layerTime.reduce((sum, time) => sum + time, 0)

export const demo = (key: string): Mesh => place(demoParts.find((part) => part.key === key)!.make())

/** A plate on two feet: the span between them is open below. */
export const table = (): Mesh =>
  joined(moved(blockMesh(6, 12, 4), -12, 0, 0), moved(blockMesh(6, 12, 4), 12, 0, 0), moved(blockMesh(30, 12, 2), 0, 0, 4))
/** A plate on one foot in its middle: it overhangs all round. */
export const mushroom = (): Mesh => joined(blockMesh(8, 8, 12), moved(blockMesh(36, 36, 2), 0, 0, 12))
