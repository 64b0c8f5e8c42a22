import ReactMarkdown from 'react-markdown'

/** A note as its writer meant it. Raw HTML stays text. */
export const Markdown = ({ text }: { text: string }) => (
  <div className="prose-note text-[12.5px]">
    <ReactMarkdown>{text}</ReactMarkdown>
  </div>
)
