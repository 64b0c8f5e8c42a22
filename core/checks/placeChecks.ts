import type { Limiter } from '../motion/limiters'
import type { Finding, Rule } from './check'

/** Of less contrast than this share of what is asked for, little is seen of a picture. Assumed. */
const FLAT = 0.6

/** What keeps a picture from being run as it is asked for, and what lets it. */
const remedies: Partial<Record<Limiter, { readonly why: string; readonly todo: string }>> = {
  acceleration: {
    why: 'The machine changes speed too slowly for so fine a picture.',
    todo: 'Take a coarser picture, speeds nearer to each other, or a higher acceleration of the outer wall.',
  },
  corner: { why: 'Corners of the part hold the wall back.', todo: 'Lay the picture where the wall is smooth, or take lower speeds.' },
  layerTime: {
    why: 'Layers are slowed so that they take their least time, and its light parts with them.',
    todo: 'Print more copies at once, let only other walls be slowed, or take speeds that need no slowing.',
  },
  flow: { why: 'The hot end cannot melt as much as its light parts ask for.', todo: 'Take lower speeds, or print hotter.' },
}

/** Places where other values hold, and the pictures on them. */
export const placeChecks: readonly Rule[] = [
  {
    id: 'place-off-part',
    severity: 'caution',
    find: ({ placesOff }) =>
      placesOff.length === 0
        ? undefined
        : {
            evidence: `Nothing is laid in ${placesOff.map((name) => `“${name}”`).join(', ')}.`,
            means: 'What is asked for there changes nothing of this print.',
            todo: 'Move it onto the part, widen it, or take it away.',
          },
  },
  {
    id: 'picture-off-part',
    severity: 'caution',
    find: ({ pictures, belt }) =>
      pictures.flatMap(({ name, timeS }): Finding[] =>
        timeS > 0
          ? []
          : [
              {
                evidence: `No outer wall runs through the picture of “${name}”.`,
                means: belt ? 'On a tilted belt layers lean over every picture: none is laid.' : 'Nothing of it will be seen.',
                todo: belt ? 'Take another printer for it.' : 'Move its place onto the part.',
              },
            ],
      ),
  },
  {
    id: 'picture-flattened',
    severity: 'caution',
    find: ({ pictures }) =>
      pictures.flatMap(({ name, timeS, contrastLeft, heldBy }): Finding[] => {
        if (timeS === 0 || contrastLeft >= FLAT) return []
        const { why, todo } = (heldBy && remedies[heldBy]) ?? {
          why: 'The machine does not reach what its light parts ask for.',
          todo: 'Take lower speeds.',
        }
        return [
          {
            evidence: `Of the contrast of the picture of “${name}” ${Math.round(100 * Math.max(0, contrastLeft))} % is left.`,
            means: why,
            todo,
          },
        ]
      }),
  },
]
