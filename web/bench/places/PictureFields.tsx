import type { Override } from '@sable/core/profile/overrides'
import type { SpeedPicture } from '@sable/core/profile/speedPicture'
import { ImagePlus, X } from 'lucide-react'
import { useRef, useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { Button, IconButton } from '../../ui/Button'
import { Choices } from '../../ui/Choices'
import { type FileAsk, FilePicker } from '../../ui/FilePicker'
import { NumberField } from '../../ui/NumberField'
import type { PlaceBox } from './placeBox'
import { readPicture } from './readPicture'

/** Speeds that a picture begins with, mm/s: far enough apart for gloss to tell, slow enough for most machines. Assumed. */
const [DARK, LIGHT] = [30, 90]

/** A part: how high it is, and the box round it; what a picture takes where its place does not say. */
export interface PartReach {
  readonly topMm: number
  readonly box: PlaceBox
  readonly isOnBelt: boolean
}

/** The picture of a place: which it is, how it lies, and the speeds that its black and its white ask for. */
export function PictureFields({
  override,
  reach,
  onChange,
}: {
  override: Override
  reach: PartReach
  onChange: (next: Partial<Override>) => boolean
}) {
  const { picture, box, toZ, name } = override
  const file = useRef<FileAsk>(null)
  const [failed, setFailed] = useState<string>()
  const put = (next: Partial<SpeedPicture>): boolean =>
    picture !== undefined && onChange({ picture: { ...picture, ...next }, ...(next.lay === 'laid' && !box ? { box: reach.box } : {}) })
  const take = async (chosen: File): Promise<void> => {
    try {
      setFailed(undefined)
      const read = await readPicture(chosen)
      const before = picture ?? { lay: 'wrapped' as const, times: 1, darkSpeed: DARK, lightSpeed: LIGHT }
      onChange({ picture: { ...before, ...read }, toZ: toZ ?? reach.topMm })
    } catch (error) {
      const { message, remedy } = asRefusal(error)
      setFailed(`${message} ${remedy}`)
    }
  }
  return (
    <div className="mt-3 border-t border-line/60 pt-3 text-[12.5px]">
      <FilePicker ref={file} label={`Picture of ${name}`} accept="image/png,image/jpeg" onFile={(chosen) => void take(chosen)} />
      <div className="flex items-center gap-2">
        <Button onClick={() => file.current?.ask()}>
          <ImagePlus className="size-3.5" aria-hidden /> {picture ? 'Another picture' : 'Speed by a picture'}
        </Button>
        {picture && (
          <>
            <span className="flex-1 text-[12px] text-muted">
              {picture.columns} × {picture.rows} px
            </span>
            <IconButton label={`Take the picture of ${name} away`} onClick={() => onChange({ picture: undefined as never })}>
              <X className="size-3.5" />
            </IconButton>
          </>
        )}
      </div>
      {failed && (
        <p role="alert" className="mt-1.5 text-stop">
          {failed}
        </p>
      )}
      {picture && (
        <div className="mt-2 space-y-1.5">
          <Choices
            label=""
            name="How the picture lies"
            of={[
              { id: 'wrapped', name: 'wrapped round' },
              { id: 'laid', name: 'laid on the front' },
            ]}
            value={picture.lay}
            onChange={(lay) => lay && put({ lay })}
          />
          <div className="flex flex-wrap gap-x-3 gap-y-1.5">
            <NumberField
              layout="above"
              width="w-16"
              label="Black at"
              unit="mm/s"
              value={picture.darkSpeed}
              onCommit={(darkSpeed = Number.NaN) => put({ darkSpeed })}
            />
            <NumberField
              layout="above"
              width="w-16"
              label="White at"
              unit="mm/s"
              value={picture.lightSpeed}
              onCommit={(lightSpeed = Number.NaN) => put({ lightSpeed })}
            />
            {picture.lay === 'wrapped' && (
              <NumberField
                layout="above"
                width="w-16"
                label="Times round"
                value={picture.times}
                onCommit={(times = Number.NaN) => put({ times })}
              />
            )}
          </div>
          <p className="text-[12px] text-muted">
            Only the outer wall follows it. Slow plastic is glossy and fast plastic matt on most spools; its middle lies on the front of the
            place, its height is the place’s.
          </p>
        </div>
      )}
    </div>
  )
}
