import { Download } from 'lucide-react'
import { useRef, useState } from 'react'
import { IconButton } from './Button'
import { Menu, MenuItem } from './Menu'
import { savePng, saveSvg } from './savePicture'

/** Saves what the view that it stands in shows: as a picture, as drawings, and its table where it has one at hand. */
export function SaveMenu({ name, csv }: { name: string; csv?: (() => void) | undefined }) {
  const [failed, setFailed] = useState(false)
  const own = useRef<HTMLSpanElement>(null)
  const save = (how: typeof savePng): void => {
    const view = own.current?.closest('section')
    setFailed(false)
    if (view) how(view, name).catch(() => setFailed(true))
  }
  return (
    <span ref={own} data-unsaved="true" className="flex items-center gap-2">
      {failed && (
        <span role="alert" className="text-[12px] text-stop">
          The picture could not be saved.
        </span>
      )}
      <Menu
        align="end"
        trigger={
          <IconButton label="Save what is shown">
            <Download className="size-4" />
          </IconButton>
        }
      >
        <MenuItem hint="a picture" onSelect={() => save(savePng)}>
          PNG
        </MenuItem>
        <MenuItem hint="drawings" onSelect={() => save(saveSvg)}>
          SVG
        </MenuItem>
        {csv && (
          <MenuItem hint="the table" onSelect={csv}>
            CSV
          </MenuItem>
        )}
      </Menu>
    </span>
  )
}
