/** What stands under one heading of a page: the heading, and its text in Markdown. */
export interface Section {
  readonly name: string
  readonly text: string
}

/** A page as it is written: its title, what stands before its first heading, and its sections. */
export interface Page {
  readonly title: string
  readonly preface: string
  readonly sections: readonly Section[]
}

/** Divides a page at its headings of the second order. */
export function readPage(markdown: string): Page {
  const [head = '', ...rest] = markdown.split(/^## /m)
  const [, title = '', preface = ''] = /^# (.*)\n([\s\S]*)$/.exec(head) ?? []
  return {
    title: title.trim(),
    preface: preface.trim(),
    sections: rest.map((piece) => {
      const end = piece.indexOf('\n')
      return { name: piece.slice(0, end).trim(), text: piece.slice(end + 1).trim() }
    }),
  }
}
