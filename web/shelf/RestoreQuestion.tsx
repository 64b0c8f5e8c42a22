import { Button } from '../ui/Button'
import { Question } from '../ui/Dialog'

/** Asked before a backup takes the place of what the desk holds. */
export function RestoreQuestion({ fileName, holds, onAnswer }: { fileName: string; holds: string; onAnswer: (replace: boolean) => void }) {
  return (
    <Question
      title={`Put ${fileName} in the place of everything here?`}
      onEscape={() => onAnswer(false)}
      actions={
        <>
          <Button onClick={() => onAnswer(false)}>Keep what is here</Button>
          <Button tone="danger" onClick={() => onAnswer(true)}>
            Replace everything
          </Button>
        </>
      }
    >
      <p>{holds} All of it is written as a backup into the desk’s folder first, so that it can be brought back.</p>
    </Question>
  )
}
