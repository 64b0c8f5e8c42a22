import type { StoredPart } from '@sable/contract/part'
import clsx from 'clsx'
import { ChevronDown, Rotate3d, Upload } from 'lucide-react'
import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { useBench } from '../../desk/bench'
import { predictionPool, useForecasts } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { download, fileNameFrom } from '../../ui/download'
import { type FileAsk, FilePicker } from '../../ui/FilePicker'
import { Popover } from '../../ui/Popover'
import { SearchMenu } from '../../ui/SearchMenu'
import { isProgram, ProgramDialog } from '../shell/ProgramDialog'
import { purposeWords } from './limits'
import { OrientationsSheet } from './OrientationsSheet'
import { OtherPart } from './OtherPart'
import { PartsSheet } from './PartsSheet'
import { PlacementForm } from './PlacementForm'
import { PurposeForm } from './PurposeForm'
import { useUpload } from './useUpload'

// The 3D package is the heaviest of all; the figures must not wait for it.
const PartThumbnail = lazy(() => import('./PartThumbnail'))

/** Where no figures come, the picture waits so long for them and no longer, ms. */
const WAIT_MS = 4000

interface Props {
  readonly parts: readonly StoredPart[]
}

/** The part: its picture, its size, how it lies, and where another one is dropped. */
export function PartStrip({ parts }: Props) {
  const { content, part, shelf, onRefusal } = useBench()
  const [stored, setStored] = useState<StoredPart>()
  const upload = useUpload((loaded) => (loaded.id === part.id ? undefined : setStored(loaded)), onRefusal)
  const [program, setProgram] = useState<File>()
  const [comparing, setComparing] = useState(false)
  const [listing, setListing] = useState(false)
  const take = (file: File): void => {
    if (isProgram(file.name)) setProgram(file)
    else void upload.begin(file)
  }
  const save = async (kind: '3mf' | 'stl'): Promise<void> => {
    try {
      const placed = { partId: part.id, contentKey: part.contentKey, fileName: part.fileName, placement: content.placement }
      download(`${fileNameFrom(part.name)}.${kind}`, await predictionPool().anyWorker.writeModel(placed, kind, part.name))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const [over, setOver] = useState(false)
  const filePicker = useRef<FileAsk>(null)
  // Any column's figures know the size as placed and what slicing had to mend.
  const placed = useForecasts((all) => content.candidates.map(({ id }) => all[id]?.prediction?.mesh).find((mesh) => mesh !== undefined))
  const isDrawn = useOnceOrSoon(placed !== undefined)
  const size = placed?.sizeMm ?? part.report.sizeMm
  const notes = placed?.notes ?? part.report.notes
  return (
    <section
      aria-label="Part"
      className={clsx(
        'relative flex min-h-[96px] shrink-0 items-stretch gap-4 border-b border-line px-3 py-2 max-lg:flex-wrap',
        over && 'bg-glow',
      )}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        const [file] = event.dataTransfer.files
        if (file) take(file)
      }}
    >
      <div className="h-[78px] w-32 shrink-0 overflow-hidden rounded-md border border-line bg-sunk">
        {isDrawn && (
          <Suspense fallback={null}>
            <PartThumbnail
              partId={part.id}
              contentKey={part.contentKey}
              fileName={part.fileName}
              placement={content.placement}
              load={content.purpose.kind === 'load' ? content.purpose.load : undefined}
            />
          </Suspense>
        )}
      </div>
      <div className="flex min-w-0 flex-col justify-center gap-1 max-lg:flex-1">
        <SearchMenu
          label="Find a part"
          trigger={
            <button type="button" className="flex items-center gap-1 self-start rounded px-1 text-[15px] font-semibold hover:bg-line">
              <span className="max-w-72 truncate">{part.name}</span>
              <ChevronDown className="size-4 text-muted" aria-hidden />
            </button>
          }
          items={parts.map(({ id, name, report }) => ({ id, name, hint: `${report.triangles.toLocaleString('en')} triangles` }))}
          current={part.id}
          onChoose={(id) => id !== part.id && setStored(parts.find((other) => other.id === id))}
          actions={[
            ...(['3mf', 'stl'] as const).map((kind) => ({
              name: 'Save in this orientation',
              hint: kind === '3mf' ? '3MF' : 'STL',
              run: () => void save(kind),
            })),
            { name: 'All parts …', run: () => setListing(true) },
          ]}
        />
        <p className="figure px-1">
          {size.map((mm) => mm.toFixed(1)).join(' × ')} <Unit>mm</Unit>
          <span className="px-2 text-strong">·</span>
          {((placed?.volumeMm3 ?? part.report.volumeMm3) / 1000).toFixed(1)} <Unit>cm³</Unit>
          <span className="px-2 text-strong">·</span>
          {part.report.triangles.toLocaleString('en')} <Unit>triangles</Unit>
        </p>
        <div className="flex items-center gap-3 px-1 text-[12px] text-muted">
          <Popover
            label="What the part is for"
            width="w-80"
            trigger={
              <button
                type="button"
                aria-label={`Purpose: ${purposeWords(content.purpose)}. Change`}
                className="max-w-[34rem] truncate rounded text-ink underline decoration-dotted underline-offset-2 hover:text-lantern-ink"
              >
                {purposeWords(content.purpose)}
              </button>
            }
          >
            <PurposeForm purpose={content.purpose} />
          </Popover>
          {part.report.watertight ? <span>Watertight</span> : <span className="text-worse">Not watertight</span>}
          {notes.length > 0 && (
            <Popover
              label="What was found in the model"
              width="w-[26rem]"
              trigger={
                <button type="button" className="rounded text-lantern-ink underline decoration-dotted underline-offset-2">
                  {notes.length === 1 ? '1 remark' : `${notes.length} remarks`}
                </button>
              }
            >
              <ul className="list-disc space-y-1.5 pl-4">
                {notes.map((note) => (
                  <li key={note}>{note}</li>
                ))}
              </ul>
            </Popover>
          )}
        </div>
      </div>
      <div className="flex-1 max-lg:hidden" />
      <div className="flex items-center gap-2">
        <Popover
          label="Orientation of the part"
          width="w-72"
          trigger={
            <Button>
              <Rotate3d className="size-3.5" aria-hidden /> Orientation and scale
            </Button>
          }
        >
          <PlacementForm placement={content.placement} onCompare={() => setComparing(true)} />
        </Popover>
        {upload.running ? (
          <div role="status" className="flex w-44 items-center gap-2 text-muted">
            <span className="flex-1 truncate">Reading {upload.running} …</span>
            <Button onClick={upload.cancel}>Cancel</Button>
          </div>
        ) : (
          <Button onClick={() => filePicker.current?.ask()}>
            <Upload className="size-3.5" aria-hidden /> Load model
            <span className="font-normal text-muted">or drop it here</span>
          </Button>
        )}
        <FilePicker ref={filePicker} label="Model file" accept=".stl,.3mf,.obj,.gcode,.gco,.g,.nc" onFile={take} />
      </div>
      {over && (
        <p className="pointer-events-none absolute inset-1 grid place-items-center rounded-md border border-dashed border-lantern font-medium text-lantern-ink">
          Drop a model (STL, 3MF, OBJ) for a lineup of its own or in the place of this one, or a program (G-code) to time it on each printer
        </p>
      )}
      {comparing && <OrientationsSheet onClose={() => setComparing(false)} />}
      {listing && <PartsSheet parts={parts} current={part.id} onClose={() => setListing(false)} />}
      {stored && <OtherPart part={stored} onEnd={() => setStored(undefined)} />}
      {program && <ProgramDialog file={program} printers={shelf.printers} onClose={() => setProgram(undefined)} />}
    </section>
  )
}

const Unit = ({ children }: { children: string }) => <span className="font-sans text-muted">{children}</span>

/** Turns true with what is waited for, or after a while without it, and stays so. */
function useOnceOrSoon(there: boolean): boolean {
  const [is, setIs] = useState(there)
  useEffect(() => {
    if (is) return
    const timer = setTimeout(() => setIs(true), there ? 0 : WAIT_MS)
    return () => clearTimeout(timer)
  }, [is, there])
  return is
}
