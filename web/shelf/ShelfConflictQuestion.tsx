import { differences } from '@sable/contract/differences'
import { Button } from '../ui/Button'
import { Question } from '../ui/Dialog'
import type { AnyRecord, ShelfConflict } from './shelfWriter'

/** Two windows changed the same record: both are shown, and one is chosen. The other stays among its versions. */
export function ShelfConflictQuestion({ conflict, onChoose }: { conflict: ShelfConflict; onChoose: (chosen: AnyRecord) => void }) {
  const { mine, theirs } = conflict
  return (
    <Question
      title={`${theirs.name} was changed in another window`}
      actions={
        <>
          <Button onClick={() => onChoose(theirs)}>Keep what is there</Button>
          <Button tone="main" onClick={() => onChoose(mine)}>
            Store mine
          </Button>
        </>
      }
    >
      <table className="w-full text-[12.5px]">
        <thead>
          <tr className="text-left text-[12px]">
            <th className="font-normal">Field</th>
            <th className="text-right font-normal">mine</th>
            <th className="text-right font-normal">there now</th>
          </tr>
        </thead>
        <tbody>
          {differences(mine, theirs).map(({ path, here, there }) => (
            <tr key={path} className="border-t border-line/60">
              <td className="py-1">{path}</td>
              <td className="figure max-w-40 truncate text-right text-ink">{here}</td>
              <td className="figure max-w-40 truncate text-right text-ink">{there}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[12px]">What is not chosen stays among its versions.</p>
    </Question>
  )
}
