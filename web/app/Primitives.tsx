import { Trash2 } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { Button, IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { Question } from '../ui/Dialog'
import { DraftField } from '../ui/DraftField'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../ui/Menu'
import { Notice } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { Popover } from '../ui/Popover'
import { SearchField } from '../ui/SearchField'
import { Select } from '../ui/Select'

const patterns = [
  { id: 'gyroid', name: 'Gyroid', group: 'Curved' },
  { id: 'lines', name: 'Lines', group: 'Straight' },
  { id: 'triangles', name: 'Triangles', group: 'Straight' },
] as const

/** Every control of the interface once, to be looked at in both themes: for whoever builds the next screen. */
export default function Primitives() {
  const [pattern, setPattern] = useState<(typeof patterns)[number]['id'] | ''>('')
  const [checked, setChecked] = useState(true)
  const [search, setSearch] = useState('')
  const [walls, setWalls] = useState<number | undefined>(3)
  const [asking, setAsking] = useState(false)
  const [refused, setRefused] = useState(true)
  return (
    <section aria-label="Primitives" className="min-h-0 flex-1 overflow-auto p-6">
      <h1 className="mb-1 text-[15px] font-semibold">Primitives</h1>
      <p className="mb-5 max-w-xl text-[12.5px] text-muted">
        What screens are built from. Look at a change here in both themes, by mouse and by keyboard.
      </p>
      <div className="grid max-w-4xl grid-cols-[9rem_1fr] items-start gap-x-6 gap-y-5 text-[12.5px]">
        <Row name="Button">
          <Button tone="main">Main</Button>
          <Button>Plain</Button>
          <Button tone="danger">Danger</Button>
          <Button disabled>Disabled</Button>
          <IconButton label="Remove">
            <Trash2 className="size-4" />
          </IconButton>
        </Row>
        <Row name="Select">
          <Select label="Pattern" hint="Choose …" value={pattern} of={patterns} onChange={setPattern} />
          <div className="w-40">
            <Select
              label="Pattern"
              name="Pattern above"
              layout="above"
              hint="Choose …"
              value={pattern}
              of={patterns}
              onChange={setPattern}
            />
          </div>
        </Row>
        <Row name="Checkbox">
          <Checkbox checked={checked} onChange={setChecked}>
            Only differences
          </Checkbox>
          <Checkbox checked={!checked} onChange={(to) => setChecked(!to)} className="text-muted">
            The other way round
          </Checkbox>
        </Row>
        <Row name="Fields">
          <SearchField label="Find a setting" value={search} onChange={setSearch} className="w-44" />
          <div className="w-60">
            <NumberField
              label="Walls"
              value={walls}
              hint="none"
              onCommit={(value) => {
                if (value !== undefined && !(value >= 0)) return false
                setWalls(value)
                return true
              }}
            />
          </div>
          <DraftField label="From height" unit="mm" text="2.4" onCommit={(text) => !Number.isNaN(Number(text))} />
        </Row>
        <Row name="Over the page">
          <Menu trigger={<Button>Menu</Button>}>
            <MenuLabel>Open</MenuLabel>
            <MenuItem current onSelect={() => {}}>
              What is open
            </MenuItem>
            <MenuItem hint="to print" onSelect={() => {}}>
              Sheet
            </MenuItem>
            <MenuSeparator />
            <MenuItem disabled onSelect={() => {}}>
              Not now
            </MenuItem>
          </Menu>
          <Popover label="Popover" trigger={<Button>Popover</Button>}>
            <p>Something small that needs no room of its own.</p>
          </Popover>
          <Button onClick={() => setAsking(true)}>Question</Button>
        </Row>
        <Row name="Notice">
          {refused ? (
            <Notice
              refusal={{ message: 'This is no STL file.', where: 'shade.png', remedy: 'Choose an STL, 3MF or OBJ file.' }}
              onClose={() => setRefused(false)}
            />
          ) : (
            <Button onClick={() => setRefused(true)}>Refuse something</Button>
          )}
        </Row>
      </div>
      {asking && (
        <Question
          title="Remove this lineup?"
          onEscape={() => setAsking(false)}
          actions={
            <>
              <Button onClick={() => setAsking(false)}>Keep it</Button>
              <Button tone="danger" onClick={() => setAsking(false)}>
                Remove
              </Button>
            </>
          }
        >
          <p>Its candidates leave the bench. The part stays.</p>
        </Question>
      )}
    </section>
  )
}

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <>
    <h2 className="pt-1 text-muted">{name}</h2>
    <div className="flex flex-wrap items-center gap-3">{children}</div>
  </>
)
