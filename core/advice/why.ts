import { type DoubtfulFigure, doubt, doubtsOf } from '../doubt/doubt'
import { statedLoad } from '../figures/judge'
import { type Limiter, limiterReasons } from '../motion/limiters'
import { facetRoughness, STAIR_COEFFICIENT } from '../physics/finish/roughness'
import { PULLED } from '../physics/finish/strings'
import { offAxisStrength } from '../physics/strength/oblique'
import type { Purpose } from '../physics/strength/purpose'
import type { LoadKind } from '../physics/strength/strengthFigures'
import { SIDE_FORCE } from '../physics/sway/sway'
import type { Prediction } from '../pipeline/predict'
import type { Setup } from '../setup/resolve'
import type { Basis } from '../shelf/material'
import { formatDuration, inWords } from '../units/format'

/** Why a figure is what it is. */
export interface Explanation {
  /** The model in one line. */
  readonly equation: string
  /** The same with this candidate's numbers, term by term. */
  readonly terms: readonly { readonly label: string; readonly value: string }[]
  /** What holds it, or where it is worst. */
  readonly place: string
  readonly basis: Basis
  readonly source: string
  /** Share by which it may be off, both ways, and what that rests on. */
  readonly doubt: number
  readonly doubts: readonly { readonly label: string; readonly share: number }[]
}

type Told = Omit<Explanation, 'doubt' | 'doubts'>

const mm = (value: number, digits = 1): string => `${value.toFixed(digits)} mm`
const percent = (share: number): string => `${Math.round(100 * share)} %`

const loadEquations: Readonly<Record<LoadKind, string>> = {
  pull: 'F = σ·A, least along the part',
  bend: 'F = σ·I / (c·arm), least along the part',
  bendHigh: 'F = σ·I / (c·arm), least along the part',
  threePoint: 'F = 2·σ·I / (c·distance to the nearer support), least along the part',
  crush: 'F = σ·A, least along the part, or π²·E·I/L² if that is less',
}

const loadWords: Readonly<Record<LoadKind, string>> = {
  pull: 'pulled, gripped at both ends,',
  bend: 'held at the low end, pressed at the far one,',
  bendHigh: 'held at the high end, pressed at the low one,',
  threePoint: 'on two supports, pressed in the middle,',
  crush: 'pressed together',
}

const tellers: Readonly<Record<DoubtfulFigure, (p: Prediction, setup: Setup, purpose: Purpose) => Told>> = {
  time: (p) => {
    const rows = Object.entries(p.timeByFeatureS).filter(([, s]) => s >= 1)
    const held = Object.entries(p.limiters)
      .filter(([, share]) => share >= 0.005)
      .sort((a, b) => b[1] - a[1])
    return {
      equation: 't = Σ over moves of l/v + (v − v₀)²/(2·a·v) + (v − v₁)²/(2·a·v)',
      terms: [
        ...rows.sort((a, b) => b[1] - a[1]).map(([feature, s]) => ({ label: inWords(feature), value: formatDuration(s) })),
        ...(p.layersSlowed > 0 ? [{ label: 'layers slowed for their least time', value: String(p.layersSlowed) }] : []),
      ],
      place: `Of the time spent laying, ${held.map(([limiter, share]) => `${percent(share)} ${limiterReasons[limiter as Limiter]}`).join(', ')}.`,
      basis: 'calculated',
      source:
        'Kinematics: trapezoids between corners, planned backward and forward; corners by deviation (Jeon 2011, from memory) or by instant change.',
    }
  },
  filament: (p, { material }) => ({
    equation: 'm = ρ · Σ A·l',
    terms: [
      { label: 'volume laid', value: `${(p.filament.volumeMm3 / 1000).toFixed(2)} cm³` },
      { label: `density of ${material.name}`, value: `${material.density} g/cm³` },
      ...(p.filament.supportG > 0 ? [{ label: 'of it supports', value: `${p.filament.supportG.toFixed(1)} g` }] : []),
      ...(p.filament.footG > 0 ? [{ label: 'of it skirt and brim', value: `${p.filament.footG.toFixed(1)} g` }] : []),
      { label: 'length of filament', value: `${(p.filament.lengthMm / 1000).toFixed(2)} m` },
    ],
    place: `The part itself takes ${(p.filament.massG - p.filament.supportG - p.filament.footG).toFixed(1)} g.`,
    basis: 'calculated',
    source: 'Definition: lines keep to their place beside their neighbours, so that solid fill conserves volume.',
  }),
  cost: (p, { material, printer }) => ({
    equation: 'cost = m · price + t · cost of an hour',
    terms: [
      { label: 'filament', value: `${p.filament.massG.toFixed(1)} g × ${material.pricePerKg}/kg = ${p.filament.materialCost.toFixed(2)}` },
      { label: 'machine', value: `${(p.timeS / 3600).toFixed(2)} h × ${printer.costPerHour}/h = ${p.filament.machineCost.toFixed(2)}` },
    ],
    place: p.filament.machineCost > p.filament.materialCost ? 'Most of it is machine time.' : 'Most of it is filament.',
    basis: 'assumed',
    source: 'Prices of the shelf.',
  }),
  surface: (p) => ({
    equation: 'Ra = k·t / cos θ up to 70° from the vertical, 117.6·t when flat, 1.2 times that facing down; mean over the area',
    terms: [
      { label: 'layer height t', value: mm(p.settings.layerHeight, 2) },
      { label: 'k', value: `${STAIR_COEFFICIENT.toFixed(1)} µm per mm` },
      { label: 'a vertical wall', value: `${facetRoughness(p.settings.layerHeight, 0, false).toFixed(1)} µm` },
      { label: 'a flat top', value: `${facetRoughness(p.settings.layerHeight, Math.PI / 2, false).toFixed(1)} µm` },
      { label: 'the roughest twentieth begins at', value: `${p.surface.ra95Um.toFixed(1)} µm` },
    ],
    place: 'Shallow slopes and tops are roughest; the face on the bed is not counted.',
    basis: 'calculated',
    source: 'Pandey, Reddy & Dhande 2003, from memory: a fit to measured surfaces.',
  }),
  gloss: (p) => ({
    equation: 'g = 1 / (1 + (u/0.3)⁴), u = flow of the outer wall over the failing flow; mean over its length',
    terms: [
      { label: 'outer wall really runs at', value: `${Math.round(p.realSpeeds.outerWall.speedMmS)} mm/s` },
      {
        label: 'flow there',
        value: `${(p.realSpeeds.outerWall.speedMmS * p.settings.layerHeight * p.settings.lineWidth).toFixed(1)} mm³/s`,
      },
      { label: `hot end fails at ${p.settings.nozzleTemperature} °C`, value: `${p.melt.failsAt.toFixed(1)} mm³/s` },
      { label: 'spread over the wall', value: percent(p.gloss.spread) },
    ],
    place:
      p.gloss.band > 0.05 ? `It changes most at z ${mm(p.gloss.bandAtZMm)}, by ${percent(p.gloss.band)}.` : 'It is even over the height.',
    basis: 'assumed',
    source: 'Semi-empirical: slow walls shine, fast ones are matte (common practice).',
  }),
  strength: (p, { material }, purpose) => {
    const { kind, along, acrossLayers, loadN, weakestAtMm, stiffnessNmm, by, basis } = statedLoad(p, purpose)
    const { heldTo, loadedFrom, axis, elevationDeg } = purpose.load
    const place = along.length === 1 ? `${along.toLowerCase()} = ${mm(weakestAtMm)}` : `${mm(weakestAtMm)} along that direction`
    return {
      equation: by === 'buckling' ? 'F = π²·E·I / L²' : loadEquations[kind],
      terms: [
        { label: 'load', value: `${loadWords[kind]} along ${along}` },
        { label: 'held up to, loaded from', value: `${heldTo} %, ${loadedFrom} % of the length` },
        { label: `strength of ${material.name} along its lines`, value: `${material.strength.inLayer} MPa` },
        ...(acrossLayers ? [{ label: 'bond between layers, worst', value: percent(p.bond.worst) }] : []),
        ...(axis === 'free' && acrossLayers
          ? [
              {
                label: `strength at ${Math.abs(elevationDeg)}° to sound layers`,
                value: `${offAxisStrength((elevationDeg * Math.PI) / 180, material.strength.inLayer, p.bond.mean).toFixed(1)} MPa (Tsai–Hill)`,
              },
            ]
          : []),
        { label: 'stiffness of the material', value: `${material.strength.modulus} MPa` },
        { label: 'walls', value: `${p.settings.wallCount} × ${p.settings.lineWidth} mm` },
        { label: 'infill', value: `${p.settings.infillDensity} % ${p.settings.infillPattern}` },
        { label: 'gives way before it fails by', value: stiffnessNmm > 0 ? mm(loadN / stiffnessNmm, 2) : '–' },
      ],
      place: by === 'buckling' ? `It buckles before it crushes; slenderest at ${place}.` : `The weakest section lies at ${place}.`,
      basis,
      source:
        'Euler–Bernoulli and Euler’s column; sections from the lines that are laid; infill by Gibson & Ashby 1997, from memory. An estimate for one material and one load, never a rating.',
    }
  },
  cooling: (p, { material }) => ({
    equation: 'margin = layer time / (τ·ln((Tn − Ta)/(Ts − Ta))), τ = ρ·cp·h/hc',
    terms: [
      { label: 'the layer takes', value: `${p.cooling.takesS.toFixed(1)} s` },
      { label: 'it needs', value: `${p.cooling.neededS.toFixed(1)} s` },
      { label: 'fan', value: `${p.settings.fanSpeed} %` },
      { label: 'nozzle', value: `${p.settings.nozzleTemperature} °C` },
      { label: `layers of ${material.name} laid on while soft`, value: `${p.cooling.layersWarm} of ${p.layerCount}` },
    ],
    place: `Worst at z ${mm(p.cooling.atZMm)}.`,
    basis: 'assumed',
    source: 'Lumped body losing heat through one face (any text on heat transfer); hc 15 to 100 W/(m²·K) assumed.',
  }),
  sway: (p, { material }) => ({
    equation: 'δ = ∫ F·(z − s)² / (E·I(s)) ds',
    terms: [
      { label: 'side force F', value: `${SIDE_FORCE} N, assumed` },
      { label: `stiffness of ${material.name}`, value: `${material.strength.modulus} MPa` },
      { label: 'height', value: mm(p.mesh.sizeMm[2]) },
      { label: 'a quarter of a line', value: mm(p.settings.lineWidth / 4, 2) },
    ],
    place:
      p.sway.slowAboveZMm === undefined
        ? 'It never gives way by a quarter of a line.'
        : `It gives way by more than a quarter of a line from z ${mm(p.sway.slowAboveZMm)} on.`,
    basis: 'assumed',
    source: 'Euler–Bernoulli by unit load, with the smaller principal moment of every layer.',
  }),
  strings: (p, { printer }) => ({
    equation: 'index = ooze · (open travel + share · travel pulled back)',
    terms: [
      { label: 'travel over open air', value: `${p.strings.openM.toFixed(2)} m` },
      { label: 'the same with filament pulled back', value: `${p.strings.pulledM.toFixed(2)} m` },
      { label: 'that counts by', value: `${PULLED[printer.extruder]}, fed ${printer.extruder === 'tube' ? 'through a tube' : 'directly'}` },
      { label: 'nozzle', value: `${p.settings.nozzleTemperature} °C` },
    ],
    place: 'Wet filament strings far more than any of this: dry it first.',
    basis: 'assumed',
    source: 'Semi-empirical.',
  }),
}

/** @throws nothing: every figure can be told */
export const explain = (figure: DoubtfulFigure, p: Prediction, setup: Setup, purpose: Purpose): Explanation => ({
  ...tellers[figure](p, setup, purpose),
  doubt: doubt(figure, p, purpose),
  doubts: doubtsOf(figure, p, purpose),
})
