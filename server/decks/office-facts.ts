// What slides of other programs say beside their pictures: notes of the pages that are shown, and typefaces.
import path from 'node:path'
import { XMLParser } from 'fast-xml-parser'
import { LIMITS } from '../../core/schema/limits.ts'
import type { OfficeArchive } from './office-archive.ts'

export interface OfficeFacts {
  /** The notes of each page that is not hidden, in order: hidden ones come into no PDF. */
  readonly notes: readonly string[]
  /** Families that its words are set in. */
  readonly families: readonly string[]
}

/** An element as the parser gives it: its name with its children, and its attributes; or a piece of text. */
type Node = { readonly [name: string]: readonly Node[] | string } & { readonly ':@'?: Readonly<Record<string, string>> }

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  trimValues: false,
  parseTagValue: false,
  parseAttributeValue: false,
})

/** Reads notes and typefaces. What the archive leaves out is left out. Throws an Error for XML that cannot be read. */
export function officeFacts(archive: OfficeArchive): Promise<OfficeFacts> {
  return archive.kind === 'pptx' ? pptxFacts(archive) : odpFacts(archive)
}

async function pptxFacts(archive: OfficeArchive): Promise<OfficeFacts> {
  const read = async (name: string) => parsed(await archive.text(name))
  const presentation = await read('ppt/presentation.xml')
  const slideNames = await relatedTo(archive, 'ppt/presentation.xml')
  const notes: string[] = []
  const families = new Set<string>()
  for (const theme of [...archive.names].filter((name) => /^ppt\/theme\/theme\d+\.xml$/.test(name)))
    for (const family of latinIn(await read(theme))) families.add(family)
  for (const slideId of all(presentation, 'p:sldId')) {
    const name = slideNames.get(attribute(slideId, 'r:id'))?.name
    if (name === undefined) continue
    const slide = await read(name)
    for (const family of latinIn(slide)) families.add(family)
    if (attribute(all(slide, 'p:sld')[0], 'show') === '0') continue
    const notesName = [...(await relatedTo(archive, name)).values()].find(({ type }) => type.endsWith('/notesSlide'))?.name
    notes.push(notesName === undefined ? '' : pptxNotes(await read(notesName)))
  }
  // "+mn-lt" names a family of the theme.
  return { notes, families: [...families].filter((family) => family !== '' && !family.startsWith('+')) }
}

function pptxNotes(notesSlide: readonly Node[]): string {
  const bodies = all(notesSlide, 'p:sp').filter((shape) => all(childrenOf(shape), 'p:ph').some((holder) => attribute(holder, 'type') === 'body'))
  const paragraphs = bodies.flatMap((body) => all(childrenOf(body), 'a:p'))
  return tidied(paragraphs.map((one) => pptxWords(childrenOf(one))).join('\n'))
}

function pptxWords(nodes: readonly Node[]): string {
  return nodes.map((node) => ('a:br' in node ? '\n' : 'a:t' in node ? plainText(childrenOf(node)) : pptxWords(childrenOf(node)))).join('')
}

function latinIn(nodes: readonly Node[]): readonly string[] {
  return all(nodes, 'a:latin').map((node) => attribute(node, 'typeface'))
}

/** The parts that a part names, by the ids that it names them by. */
async function relatedTo(archive: OfficeArchive, name: string): Promise<ReadonlyMap<string, { readonly name: string; readonly type: string }>> {
  const folder = path.posix.dirname(name)
  const relations = all(parsed(await archive.text(`${folder}/_rels/${path.posix.basename(name)}.rels`)), 'Relationship')
  return new Map(
    relations
      .filter((relation) => attribute(relation, 'TargetMode') !== 'External')
      .map((relation) => {
        const target = attribute(relation, 'Target')
        const to = target.startsWith('/') ? target.slice(1) : path.posix.normalize(`${folder}/${target}`)
        return [attribute(relation, 'Id'), { name: to, type: attribute(relation, 'Type') }] as const
      }),
  )
}

async function odpFacts(archive: OfficeArchive): Promise<OfficeFacts> {
  const content = parsed(await archive.text('content.xml'))
  const hiddenStyles = new Set(
    all(content, 'style:style')
      .filter((style) => all(childrenOf(style), 'style:drawing-page-properties').some((one) => attribute(one, 'presentation:visibility') === 'hidden'))
      .map((style) => attribute(style, 'style:name')),
  )
  const pages = all(content, 'draw:page').filter((page) => !hiddenStyles.has(attribute(page, 'draw:style-name')))
  const families = all([...content, ...parsed(await archive.text('styles.xml'))], 'style:font-face').map((face) =>
    attribute(face, 'svg:font-family').replaceAll(/^['"]|['"]$/g, ''),
  )
  return { notes: pages.map(odpNotes), families: [...new Set(families)].filter((family) => family !== '') }
}

function odpNotes(page: Node): string {
  const frames = all(childrenOf(page), 'presentation:notes').flatMap((notes) => all(childrenOf(notes), 'draw:frame'))
  const paragraphs = frames.filter((frame) => attribute(frame, 'presentation:class') === 'notes').flatMap((frame) => all(childrenOf(frame), 'text:p'))
  return tidied(paragraphs.map((one) => odpWords(childrenOf(one))).join('\n'))
}

function odpWords(nodes: readonly Node[]): string {
  return nodes
    .map((node) => {
      if ('#text' in node) return String(node['#text'])
      if ('text:line-break' in node) return '\n'
      if ('text:tab' in node) return '\t'
      if ('text:s' in node) return ' '.repeat(Math.min(100, Number(attribute(node, 'text:c')) || 1))
      return odpWords(childrenOf(node))
    })
    .join('')
}

function parsed(xml: string | null): readonly Node[] {
  return xml === null ? [] : (parser.parse(xml) as Node[])
}

/** Every element of a name, however deep; what lies in one of them is not looked through again. */
function all(nodes: readonly Node[], name: string): readonly Node[] {
  return nodes.flatMap((node) => (name in node ? [node] : all(childrenOf(node), name)))
}

function childrenOf(node: Node): readonly Node[] {
  const children = Object.entries(node).find(([name]) => name !== ':@')?.[1]
  return Array.isArray(children) ? (children as readonly Node[]) : []
}

function attribute(node: Node | undefined, name: string): string {
  return node?.[':@']?.[name] ?? ''
}

function plainText(nodes: readonly Node[]): string {
  return nodes.map((node) => ('#text' in node ? String(node['#text']) : '')).join('')
}

/** As much as a page may have. */
function tidied(text: string): string {
  return text.trim().slice(0, LIMITS.notesLength)
}
