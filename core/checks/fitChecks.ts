import { copyPlaces } from '../toolpath/copyPaths'
import { be, count, type Rule } from './check'

/** Lost detail of less than this share of the part is the rounding of corners. */
const LEAST_LOST = 0.002
/** A part this many times as high as its foot is wide comes loose easily; semi-empirical. */
const TALL_FOR_FOOT = 5

/** Whether the part fits the machine, and its detail the lines. */
export const fitChecks: readonly Rule[] = [
  {
    id: 'larger-than-printer',
    severity: 'stop',
    find: ({ setup, sizeMm }) => {
      // A belt has no end in its own direction.
      const axes = setup.printer.kinematics === 'tiltedBelt' ? [0, 2] : [0, 1, 2]
      const over = axes.filter((k) => sizeMm[k]! > setup.printer.buildVolume[k]!)
      if (over.length === 0) return
      const which = over.map((k) => `${'XYZ'[k]} ${sizeMm[k]!.toFixed(1)} mm of ${setup.printer.buildVolume[k]} mm`).join(', ')
      return {
        evidence: `The part does not fit ${setup.printer.name}: ${which}.`,
        means: '',
        todo: 'Turn it, scale it down or choose another printer.',
      }
    },
  },
  {
    id: 'outside-round-bed',
    severity: 'stop',
    find: ({ setup: { printer }, sizeMm }) => {
      const across = Math.hypot(sizeMm[0], sizeMm[1])
      if (printer.bedShape !== 'round' || across <= printer.buildVolume[0]) return
      return {
        evidence: `Corner to corner the part measures ${across.toFixed(0)} mm; the round bed of ${printer.name} is ${printer.buildVolume[0]} mm wide.`,
        means: 'Its corners may stand over the edge.',
        todo: 'Turn it, or see that its corners are empty.',
      }
    },
  },
  {
    id: 'nothing-laid',
    severity: 'stop',
    setting: 'lineWidth',
    find: ({ laidVolumeMm3 }) =>
      laidVolumeMm3 > 0
        ? undefined
        : { evidence: 'No line fits anywhere into this part.', means: '', todo: 'Use a narrower line or scale the part up.' },
  },
  {
    id: 'thinner-than-a-line',
    severity: 'caution',
    setting: 'lineWidth',
    find: ({ lost: { layersWithLostPieces }, laidVolumeMm3, layerCount }) =>
      layersWithLostPieces === 0 || laidVolumeMm3 === 0
        ? undefined
        : {
            evidence: `On ${layersWithLostPieces} of ${layerCount} layers a piece of the model is thinner than a line and is not laid.`,
            means: 'It will be missing.',
            todo: 'Use a narrower line to keep it.',
          },
  },
  {
    id: 'detail-lost',
    severity: 'note',
    setting: 'leastLineWidth',
    find: ({ lost, laidVolumeMm3, resolved: { settings } }) =>
      lost.areaMm2 * settings.layerHeight < LEAST_LOST * laidVolumeMm3 || lost.layersWithLostPieces > 0
        ? undefined
        : {
            evidence: `Places thinner than ${settings.leastLineWidth} mm get no line: ${Math.round(lost.areaMm2)} mm², summed over the layers.`,
            means: 'Sideways detail is about one line wide.',
            todo: 'Use a narrower line or a finer bore where it matters.',
          },
  },
  {
    id: 'copies-do-not-fit',
    severity: 'stop',
    setting: 'copies',
    find: ({ setup, sizeMm, resolved: { settings }, belt }) => {
      if (settings.copies === 1) return
      const places = copyPlaces(sizeMm, settings, belt)
      const spread = [0, 1].map(
        (k) => Math.max(...places.map((place) => place[k]!)) - Math.min(...places.map((place) => place[k]!)) + sizeMm[k]!,
      )
      const over = [0, ...(belt ? [] : [1])].filter((k) => spread[k]! > setup.printer.buildVolume[k]!)
      if (over.length === 0) return
      return {
        evidence: `${settings.copies} copies need ${spread.map((mm) => mm.toFixed(0)).join(' × ')} mm; ${setup.printer.name} has ${setup.printer.buildVolume.slice(0, 2).join(' × ')} mm.`,
        means: '',
        todo: 'Print fewer, or nearer to each other.',
      }
    },
  },
  {
    id: 'head-hits-copy',
    severity: 'stop',
    setting: 'copyGap',
    find: ({ setup: { printer }, sizeMm, resolved: { settings } }) => {
      const { copies, copyOrder, copyGap } = settings
      const { clearance } = printer
      if (copies === 1 || copyOrder === 'together' || !clearance) return
      if (copyGap >= clearance.radius || sizeMm[2] <= clearance.height) return
      return {
        evidence: `One at a time, the head of ${printer.name} needs ${clearance.radius} mm to every side of parts higher than ${clearance.height} mm; the gap is ${copyGap} mm.`,
        means: 'It would hit finished copies.',
        todo: `Set the gap to ${clearance.radius} mm, or print together.`,
        fix: { values: { copyGap: clearance.radius } },
      }
    },
  },
  {
    id: 'small-foot',
    severity: 'note',
    setting: 'brim',
    of: { school: 'S6', fix: 'always', other: 'never' },
    school: 'Some always lay a brim, some only inside holes, some never, and lay the first layer slowly instead.',
    find: ({ footMm2, sizeMm, resolved: { settings }, belt }) => {
      const across = Math.sqrt(footMm2)
      if (belt || footMm2 <= 0 || settings.brim !== 'none' || sizeMm[2] < TALL_FOR_FOOT * across) return
      return {
        evidence: `It stands ${sizeMm[2].toFixed(0)} mm high on ${footMm2.toFixed(0)} mm².`,
        means: 'So small a foot comes loose easily.',
        todo: 'Give it an outer brim, or a slow first layer.',
        fix: { values: { brim: 'outer' } },
        otherFix: { values: { firstLayerSpeed: Math.min(15, settings.firstLayerSpeed) } },
      }
    },
  },
  {
    id: 'mesh-open',
    severity: 'note',
    find: ({ mesh }) =>
      mesh.watertight
        ? undefined
        : { evidence: 'The model is not watertight.', means: '', todo: 'What was done about it is listed with the part.' },
  },
  {
    id: 'top-without-infill',
    severity: 'caution',
    setting: 'infillShiftX',
    find: ({ unproppedTops }) => {
      const [largest] = [...unproppedTops].sort((a, b) => b.areaMm2 - a.areaMm2)
      if (!largest) return
      const [x, y, z] = largest.at.map((mm) => mm.toFixed(1))
      const n = unproppedTops.length
      return {
        evidence: `${count(n, 'top')} ${n === 1 ? 'has' : 'have'} no infill line underneath, the largest of ${Math.round(largest.areaMm2)} mm² at x ${x}, y ${y}, z ${z} mm.`,
        means: `${n === 1 ? 'It' : 'They'} ${be(n)} laid into the air.`,
        todo: 'Shift or turn the infill, or lay it denser.',
      }
    },
  },
]
