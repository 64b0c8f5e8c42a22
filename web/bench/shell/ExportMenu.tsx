import { writeLineupFile } from '@sable/contract/lineupFile'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { useBench } from '../../desk/bench'
import { useDesk } from '../../desk/deskStore'
import { useForecasts } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { download, fileNameFrom } from '../../ui/download'
import { Menu, MenuItem } from '../../ui/Menu'
import { lineupArchive } from './carryLineup'
import { lineupCsv } from './lineupCsv'
import { QueueDialog } from './QueueDialog'
import { SHEET } from './views'

/** The forms in which a lineup leaves the bench. */
export function ExportMenu() {
  const { content, part, shelf, onRefusal } = useBench()
  const navigate = useNavigate()
  const id = useDesk((desk) => desk.lineupId)
  const name = fileNameFrom(content.name)
  const saveCsv = (): void => {
    const forecasts = useForecasts.getState()
    const predictions = content.candidates.map((candidate) =>
      forecasts[candidate.id]?.state === 'done' ? forecasts[candidate.id]?.prediction : undefined,
    )
    download(`${name}.csv`, lineupCsv(content, shelf, predictions), 'text/csv')
  }
  const saveArchive = async (): Promise<void> => {
    try {
      download(`${name}.lineup.zip`, await lineupArchive(content, part, shelf))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const [queueing, setQueueing] = useState(false)
  return (
    <>
      <Menu align="end" trigger={<Button className="ml-1">Export</Button>}>
        <MenuItem hint="any of these columns, or each" onSelect={() => setQueueing(true)}>
          Into the queue …
        </MenuItem>
        <MenuItem hint="a table of everything" onSelect={saveCsv}>
          CSV
        </MenuItem>
        <MenuItem hint="to print" onSelect={() => void navigate(`/bench/${id}/${SHEET}`)}>
          One-page sheet
        </MenuItem>
        <MenuItem hint="opens anywhere: with model and records" onSelect={() => void saveArchive()}>
          Lineup file
        </MenuItem>
        <MenuItem hint="without its model" onSelect={() => download(`${name}.json`, writeLineupFile(content, part), 'application/json')}>
          JSON
        </MenuItem>
      </Menu>
      {queueing && <QueueDialog onClose={() => setQueueing(false)} />}
    </>
  )
}
