import type { Question } from '../spec/fault'

/** Factors are assumed, as plain as practice tells them: a sign that belongs to a cause makes it three or four times likelier. */
export const questions: readonly Question[] = [
  {
    id: 'smallParts',
    asks: 'Do small parts come out well from the same reel?',
    basis: 'CP-F9, common practice; factors assumed',
    answers: {
      yes: {
        words: 'yes',
        factors: {
          flowOver: 3,
          bedWarmthGone: 3.5,
          layerTimeLong: 2.5,
          longFlat: 2.5,
          sways: 2,
          wet: 0.4,
          partialClog: 0.25,
          underFlow: 0.4,
          otherSpool: 0.5,
          bedDirty: 0.5,
          stepsWrong: 0.6,
          pushBackFast: 0.5,
        },
      },
      no: {
        words: 'no, they fail too',
        factors: {
          wet: 2.5,
          partialClog: 3,
          otherSpool: 2.5,
          underFlow: 2.5,
          pushBackFast: 2,
          bedDirty: 2,
          flowOver: 0.4,
          bedWarmthGone: 0.3,
          layerTimeLong: 0.4,
          longFlat: 0.4,
        },
      },
    },
  },
  {
    id: 'sound',
    asks: 'What was heard?',
    basis: 'common practice; factors assumed',
    answers: {
      hissing: { words: 'hissing or crackling', factors: { wet: 6 } },
      clicking: {
        words: 'the drive clicks',
        factors: { pushBackFast: 3, flowOver: 2.5, partialClog: 2.5, nozzleNear: 2, feedLimit: 3, cold: 2 },
      },
      knocking: { words: 'the nozzle knocks against the part', factors: { hitsEdges: 5, supportNoLift: 5 } },
      nothing: { words: 'nothing unusual', factors: { wet: 0.6, hitsEdges: 0.5, supportNoLift: 0.5, pushBackFast: 0.5, feedLimit: 0.5 } },
    },
  },
  {
    id: 'everywhere',
    asks: 'Is it the same all over the print?',
    basis: 'assumed',
    answers: {
      all: {
        words: 'all over',
        factors: {
          underFlow: 2.5,
          overFlow: 2.5,
          hot: 1.5,
          wet: 1.5,
          partialClog: 1.5,
          stepsWrong: 2,
          shrinks: 2,
          placesDiffer: 0.2,
          bedWarmthGone: 0.2,
          tangled: 0.4,
          layerTimeSwings: 0.6,
        },
      },
      bands: {
        words: 'in bands of height',
        factors: { placesDiffer: 3, layerTimeSwings: 2.5, heatSwings: 2, flowOver: 1.5, bedWarmthGone: 1.5, tangled: 1.5, underFlow: 0.4 },
      },
      once: {
        words: 'once, from one height on',
        factors: {
          tangled: 3,
          fibreInBore: 2,
          hitsEdges: 2,
          motorWeak: 2,
          heatCreep: 2,
          bedWarmthGone: 1.5,
          overFlow: 0.3,
          underFlow: 0.4,
        },
      },
      above: {
        words: 'only high up',
        factors: { sways: 2.5, bedWarmthGone: 3, trunkSlender: 2, tableShakes: 1.5, nozzleNear: 0.2, squashed: 0.2 },
      },
    },
  },
  {
    id: 'before',
    asks: 'Did it ever come out well on this printer?',
    basis: 'assumed',
    answers: {
      otherReels: {
        words: 'yes, with other reels',
        factors: {
          otherSpool: 3,
          wet: 2.5,

          fibreInBore: 2,
          shrinks: 2,
          beltsLoose: 0.3,
          stepsWrong: 0.3,
          tableShakes: 0.5,
          bedDirty: 0.6,
          motorWeak: 0.4,
        },
      },
      until: {
        words: 'yes, until lately',
        factors: { beltsLoose: 3, partialClog: 3, bedDirty: 3, wet: 2.5, motorWeak: 2, heatSwings: 2, tangled: 1.5, stepsWrong: 0.4 },
      },
      never: {
        words: 'never',
        factors: { stepsWrong: 3, tableShakes: 2, accelerationHigh: 1.5, cornerFast: 1.5, nozzleFar: 2, openAir: 1.5, beltsLoose: 1.2 },
      },
    },
  },
  {
    id: 'shakes',
    asks: 'What does the printer stand on?',
    of: ['waves', 'shifted', 'brokenSupport', 'feathered'],
    basis: 'common practice; factors assumed',
    answers: {
      floor: { words: 'a floor or bench that stays put', factors: { tableShakes: 0.15 } },
      table: { words: 'a light table or a cart', factors: { tableShakes: 2.5, trunkSlender: 1.2, sways: 1.2 } },
      moves: { words: 'it is seen to move', factors: { tableShakes: 6, trunkSlender: 1.3, sways: 1.3 } },
    },
  },
  {
    id: 'supportSign',
    asks: 'What happened to the support?',
    of: ['brokenSupport'],
    basis: 'CP-P1 to CP-P3, common practice; factors assumed',
    answers: {
      lone: { words: 'a lone tall one wobbles', factors: { trunkSlender: 5 } },
      letsGo: { words: 'it came off the bed', factors: { supportNoBrim: 6 } },
      snapped: { words: 'the trunk itself snapped', factors: { supportThin: 5, trunkSlender: 1.5 } },
      again: { words: 'it breaks again and again', factors: { supportFast: 4 } },
      strays: { words: 'it wanders', factors: { tableShakes: 4 } },
      sags: { words: 'branches sag', factors: { branchesLean: 6 } },
      onIt: { words: 'what it holds sags onto it', factors: { supportGapWide: 6 } },
    },
  },
  {
    id: 'drive',
    asks: 'What does the filament look like at the drive?',
    of: ['gaps', 'splitBand', 'openTop', 'clog', 'clicking'],
    basis: 'common practice; factors assumed',
    answers: {
      chewed: { words: 'chewed', factors: { partialClog: 2.5, fibreInBore: 2, retractLong: 2, pushBackFast: 1.5, flowOver: 1.5 } },
      taut: { words: 'pulled taut towards the reel', factors: { tangled: 6 } },
      swollen: { words: 'thick or bent above the hot end', factors: { heatCreep: 6, lingersFilled: 1.5 } },
      fine: { words: 'as always', factors: { tangled: 0.3, heatCreep: 0.4 } },
    },
  },
  {
    id: 'firstLayer',
    asks: 'How do lines of the first layer look?',
    of: ['warped', 'loose', 'wideFoot', 'clicking', 'wrongSize'],
    basis: 'common practice; factors assumed',
    answers: {
      round: { words: 'round, like threads', factors: { nozzleFar: 5, squashed: 0.2, nozzleNear: 0.2 } },
      flat: { words: 'flat and closed', factors: { nozzleFar: 0.3, bedDirty: 1.8, bedCold: 1.5, longFlat: 1.3 } },
      rippled: { words: 'rippled, pressed out', factors: { squashed: 4, nozzleNear: 5, overFlow: 2, nozzleFar: 0.1 } },
    },
  },
  {
    id: 'line',
    asks: 'Of a single line in the air: how does it come?',
    basis: 'common practice; factors assumed',
    answers: {
      straight: { words: 'straight and smooth', factors: { partialClog: 0.25, wet: 0.4, fibreInBore: 0.4 } },
      curls: { words: 'it curls to one side', factors: { partialClog: 5, fibreInBore: 3 } },
      foams: { words: 'it foams and spits', factors: { wet: 6 } },
    },
  },
  {
    id: 'threads',
    asks: 'Where do the threads hang?',
    of: ['strings', 'softTips', 'blobs'],
    basis: 'assumed',
    answers: {
      between: { words: 'in the air, from part to part', factors: { staysDown: 0.4, retractShort: 1.3 } },
      onTop: { words: 'they lie on the part, along travel', factors: { staysDown: 7, openWays: 0.5, travelSlow: 0.6, retractShort: 0.7 } },
      tips: { words: 'at tips and edges, short', factors: { noWipe: 2.5, layerTimeShort: 2 } },
    },
  },
  {
    id: 'fan',
    asks: 'A strip of paper held before the duct of the part fan: does it stand out?',
    of: ['droop', 'sag', 'softTips', 'openTop'],
    basis: 'assumed',
    answers: {
      strong: { words: 'yes, straight out', factors: { bridgeFan: 0.5, fanWeak: 0.6 } },
      weak: { words: 'hardly, or on one side only', factors: { bridgeFan: 6, fanWeak: 6 } },
    },
  },
]
