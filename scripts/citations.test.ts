import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { describe, expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const practice = readFileSync(join(root, 'docs/practice.md'), 'utf8')
const known = new Set([...practice.matchAll(/^\| (CP-[A-Z]+\d+)/gm)].map(([, id]) => id))

/** Every place where something is cited, with the file and line. */
function citations(pattern: RegExp): { readonly what: string; readonly where: string }[] {
  return [
    'core',
    'contract',
    'server',
    'web',
    'cli',
    'demo',
    'e2e',
    'bench',
    'docs',
    'README.md',
    'CONTRIBUTING.md',
    'CHANGELOG.md',
  ].flatMap((place) =>
    filesOf(join(root, place)).flatMap((path) =>
      readFileSync(path, 'utf8')
        .split('\n')
        .flatMap((line, i) => [...line.matchAll(pattern)].map((match) => ({ what: match[1]!, where: `${relative(root, path)}:${i + 1}` }))),
    ),
  )
}

function filesOf(place: string): string[] {
  if (place.endsWith('.md')) return [place]
  return readdirSync(place, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.(tsx?|md)$/.test(entry.name) && !entry.parentPath.includes('node_modules'))
    .map((entry) => join(entry.parentPath, entry.name))
}

describe('what is cited', () => {
  it('of common practice stands in docs/practice.md', () => {
    const cited = citations(/\b(CP-[A-Z]+\d+)\b/g)
    expect(cited.length).toBeGreaterThan(100)
    expect(cited.filter(({ what }) => !known.has(what))).toEqual([])
  })

  it('of files of this project is there', () => {
    // A folder or a file, as prose and comments name them.
    const named = citations(/`((?:core|contract|server|web|cli|demo|e2e|bench|soak|scripts|docs)\/[\w./-]+)`/g)
    expect(named.length).toBeGreaterThan(10)
    const missing = named.filter(({ what }) => !isThere(what))
    expect(missing).toEqual([])
  })

  it('by headings of the documents is there', () => {
    const anchors = citations(/([\w./-]+\.md#[\w-]+)/g)
    const missing = anchors.filter(({ what }) => {
      const [path, anchor] = what.split('#') as [string, string]
      const file = path.startsWith('docs/') || path === 'README.md' ? path : `docs/${path}`
      return !isThere(file) || !headingsOf(join(root, file)).includes(anchor)
    })
    expect(missing).toEqual([])
    expect(headingsOf(join(root, 'docs/models.md'))).toContain('stages-and-what-they-read')
  })

  it('by links of the documents is there', () => {
    const linked = citations(/\]\((?!https?:|#)([^)#\s]+)(?:#[^)]*)?\)/g).filter(({ where }) => /\.md:/.test(where))
    expect(linked.length).toBeGreaterThan(10)
    const missing = linked.filter(({ what, where }) => {
      const from = join(root, where.replace(/:\d+$/, ''), '..')
      return !isThere(relative(root, join(from, what)))
    })
    expect(missing).toEqual([])
  })
})

/** Headings of a document as links name them. */
const headingsOf = (path: string): string[] =>
  [...readFileSync(path, 'utf8').matchAll(/^#+ (.+)$/gm)].map(([, heading]) =>
    heading!
      .toLowerCase()
      .replace(/[^\w\s-]/g, '')
      .trim()
      .replace(/\s+/g, '-'),
  )

function isThere(path: string): boolean {
  const clean = path.replace(/\/$/, '')
  const folder = join(root, clean, '..')
  try {
    const last = clean.split('/').at(-1)!
    return readdirSync(folder).some((name) => name === last || name.replace(/\.(tsx?|mjs|md)$/, '') === last)
  } catch {
    return false
  }
}
