import type { Candidate } from '@sable/contract/lineup'
import type { PictureSeen } from '@sable/core/physics/finish/pictureSeen'
import { formatDuration } from '@sable/core/units/format'
import { useEffect, useRef } from 'react'
import { useBench } from '../../desk/bench'
import { usePictures } from '../../predictions/useDrawn'

/** The pictures of a candidate as they are asked for and as they will be seen, with what they cost. */
export function SeenPictures({ candidate, chosen }: { candidate: Candidate; chosen: number }) {
  const { content, part, shelf } = useBench()
  const has = candidate.overrides[chosen]?.picture !== undefined
  const drawn = usePictures(has ? candidate : undefined, content, part, shelf)
  if (!has) return null
  const own = drawn?.drawing?.find(({ of }) => of === chosen)
  if (!own)
    return (
      <p role={drawn?.failed ? 'alert' : 'status'} className="mt-3 text-muted">
        {drawn?.failed ?? 'Running the picture …'}
      </p>
    )
  const { figures, rows } = own
  const { darkSpeed, lightSpeed } = candidate.overrides[chosen]!.picture!
  const range = [Math.min(darkSpeed, lightSpeed), Math.max(darkSpeed, lightSpeed)] as const
  if (rows === 0 || figures.timeS === 0) return <p className="mt-3 text-muted">No outer wall runs through it.</p>
  return (
    <figure className="mt-3" aria-label="What will be seen of the picture">
      <Greys label="as asked" own={own} speeds={own.askedMmS} dark={darkSpeed} light={lightSpeed} />
      <Greys label="as it will be seen" own={own} speeds={own.seenMmS} dark={darkSpeed} light={lightSpeed} />
      <figcaption className="mt-1.5 text-[12px]">
        <span className="figure font-semibold">{Math.round(100 * Math.max(0, figures.contrastLeft))} %</span> of its contrast is left. Its
        wall takes <span className="figure">{formatDuration(figures.timeS)}</span>, {formatDuration(figures.addedS)} more than at {range[1]}{' '}
        mm/s throughout.
      </figcaption>
    </figure>
  )
}

/** Speeds of the wall, rolled out, black at one speed and white at the other; what is no wall is left out. */
function Greys({
  label,
  own,
  speeds,
  dark,
  light,
}: {
  label: string
  own: PictureSeen
  speeds: Float32Array
  dark: number
  light: number
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const { columns, rows } = own
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!context) return
    const image = context.createImageData(columns, rows)
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        // The lowest layer comes first, and is drawn last.
        const speed = speeds[(rows - 1 - row) * columns + column]!
        const grey = Math.max(0, Math.min(255, Math.round((255 * (speed - dark)) / (light - dark || 1))))
        image.data.set(Number.isNaN(speed) ? [0, 0, 0, 0] : [grey, grey, grey, 255], 4 * (row * columns + column))
      }
    context.putImageData(image, 0, 0)
  }, [columns, rows, speeds, dark, light])
  return (
    <div className="mt-1.5">
      <p className="text-[12px] text-muted">{label}</p>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`The picture ${label}`}
        width={columns}
        height={rows}
        className="w-full rounded border border-line bg-sunk"
        style={{ aspectRatio: String(Math.min(6, Math.max(0.6, own.widthMm / Math.max(1, own.heightMm)))), imageRendering: 'pixelated' }}
      />
    </div>
  )
}
