/** A stretch of text of one kind. `mark`: an answer that is not known yet, in a preview. */
export interface TextRun {
  is: 'text'
  text: string
  bold: boolean
  italic: boolean
  underline: boolean
  mark: boolean
}
/** A picture: its bytes, of a media type, and how large it is printed, in points. */
export interface PictureRun {
  is: 'picture'
  type: string
  bytes: Uint8Array
  width: number
  height: number
}
/** What is set when pages are made: the number of the page, or how many there are. */
export interface FieldRun {
  is: 'field'
  of: 'page' | 'pages'
}
export type ContentRun = TextRun | PictureRun | FieldRun

/** A paragraph: a heading of a level from 1 on (0: none), and an item of a list where `list` says so, with how deep it stands. */
export interface ContentParagraph {
  is: 'paragraph'
  level: number
  list: 'bullets' | 'numbers' | null
  depth: number
  align: 'left' | 'center' | 'right' | 'justify'
  /** It begins on a page of its own. */
  newPage: boolean
  runs: readonly ContentRun[]
}
/** A table by rows and cells; `span`: how many columns a cell is wide. */
export interface ContentTable {
  is: 'table'
  rows: readonly (readonly ContentCell[])[]
}
export interface ContentCell {
  span: number
  blocks: readonly ContentBlock[]
}
export type ContentBlock = ContentParagraph | ContentTable

/** What a document says, without how exactly its pages are set: to be shown beside a form, or printed plainly. */
export interface DocumentContent {
  header: readonly ContentBlock[]
  body: readonly ContentBlock[]
  footer: readonly ContentBlock[]
}

/** The text of blocks, a line for each paragraph, the cells of a row with tabs between. */
export function textOfContent(blocks: readonly ContentBlock[]): string {
  return blocks.map(block => (block.is === 'table' ? textOfTable(block) : textOfParagraph(block))).join('\n')
}
const textOfTable = ({ rows }: ContentTable) =>
  rows.map(row => row.map(cell => textOfContent(cell.blocks)).join('\t')).join('\n')
const textOfParagraph = ({ runs }: ContentParagraph) =>
  runs.map(run => (run.is === 'text' ? run.text : '')).join('')
