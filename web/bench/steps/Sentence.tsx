import { Check, Copy } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../../ui/Button'

/** The trail in one sentence, for a note. */
export function Sentence({ text }: { text: string }) {
  const [copied, setCopied] = useState(false)
  return (
    <p className="max-w-[60rem] flex-1 text-[12.5px] text-muted">
      {text}{' '}
      <Button
        className="ml-1 h-6 px-1.5"
        onClick={() => {
          void navigator.clipboard.writeText(text).then(() => setCopied(true))
        }}
      >
        {copied ? <Check className="size-3.5" aria-hidden /> : <Copy className="size-3.5" aria-hidden />} {copied ? 'Copied' : 'Copy'}
      </Button>
    </p>
  )
}
