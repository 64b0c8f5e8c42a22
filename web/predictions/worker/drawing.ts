import { boxRoundFaces, type UprightBox } from '@sable/core/mesh/boxRound'
import { place } from '@sable/core/mesh/place'
import type { PictureSeen } from '@sable/core/physics/finish/pictureSeen'
import type { PickedCase, PickedPlace } from '@sable/core/physics/strength/pickedCases'
import { type DrawnCase, drawnCase, type PointedAt, placeAt } from '@sable/core/pipeline/pickedCases'
import { type DrawnMoves, drawnMoves } from '@sable/core/views/drawnMoves'
import { drawnPictures } from '@sable/core/views/drawnPictures'
import { type LoadMap, loadMap } from '@sable/core/views/loadMap'
import { type SurfaceMap, surfaceMap } from '@sable/core/views/surfaceMap'
import * as Comlink from 'comlink'
import { cache, inTurn, loadPart, toolsFor } from './atHand'
import type { PlacedPart, PredictRequest } from './request'

/** What pictures are drawn from, out of what predictions remember. */
export const drawing = {
  /** Every move of a candidate, for drawing. */
  async drawMoves(request: PredictRequest): Promise<DrawnMoves> {
    const { part, polygons } = await toolsFor(request)
    return inTurn(async () => {
      const { placement, setup, values, overrides } = request
      const moves = drawnMoves(part, placement, setup, values, { kernel: polygons, cache, overrides })
      return Comlink.transfer(
        moves,
        Object.values(moves).map(({ buffer }) => buffer),
      )
    })
  },

  /** The surface of a candidate, for drawing. */
  async drawSurface(request: PredictRequest): Promise<SurfaceMap> {
    const { part, polygons } = await toolsFor(request)
    return inTurn(async () => {
      const { placement, setup, values, overrides } = request
      const map = surfaceMap(part, placement, setup, values, { kernel: polygons, cache, overrides })
      return Comlink.transfer(
        map,
        Object.values(map).map(({ buffer }) => buffer),
      )
    })
  },

  /** What will be seen of the pictures on a candidate. */
  async drawPictures(request: PredictRequest): Promise<readonly PictureSeen[]> {
    const { part, polygons } = await toolsFor(request)
    return inTurn(async () => {
      const { placement, setup, values, overrides } = request
      return drawnPictures(part, placement, setup, values, { kernel: polygons, cache, overrides })
    })
  },

  /** The face of a part at a point of it as it lies, mm, or a box about that point. */
  async pickPlace(request: PredictRequest, at: readonly [number, number, number], pointedAt: PointedAt): Promise<PickedPlace> {
    const part = await loadPart(request)
    return placeAt(part, place(part.mesh, request.placement), at, request.placement, pointedAt)
  },

  /** The box round faces of a part as it lies, each told by a point of it, and so many mm around them. */
  async boxRound(request: PlacedPart, at: readonly (readonly [number, number, number])[], around: number): Promise<UprightBox> {
    const part = await loadPart(request)
    return boxRoundFaces(place(part.mesh, request.placement), part.edges, at, around)
  },

  /** Where a case acts on a part as it lies. */
  async drawCase(request: PredictRequest, picked: PickedCase): Promise<DrawnCase> {
    const part = await loadPart(request)
    return drawnCase(picked, part, place(part.mesh, request.placement), request.placement)
  },

  /** How a candidate bears loads, for drawing. */
  async drawLoads(request: PredictRequest): Promise<LoadMap> {
    const { part, polygons } = await toolsFor(request)
    return inTurn(async () => {
      const { placement, setup, values, overrides, load } = request
      return loadMap(part, placement, setup, values, { kernel: polygons, cache, overrides, load })
    })
  },

  /** Triangles of the part as it lies on the bed, for drawing. */
  async meshForView(request: PlacedPart): Promise<{ positions: Float32Array; triangles: Uint32Array }> {
    const part = await loadPart(request)
    const mesh = place(part.mesh, request.placement)
    const answer = { positions: Float32Array.from(mesh.positions), triangles: mesh.triangles.slice() }
    return Comlink.transfer(answer, [answer.positions.buffer, answer.triangles.buffer])
  },
}
