import { baseKeymap, toggleMark } from 'prosemirror-commands'
import { history, redo, undo } from 'prosemirror-history'
import { keymap } from 'prosemirror-keymap'
import { MarkdownParser, defaultMarkdownSerializer, schema as full } from 'prosemirror-markdown'
import { Schema, type MarkType, type NodeType } from 'prosemirror-model'
import { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list'
import { EditorState, type Command } from 'prosemirror-state'
import { EditorView } from 'prosemirror-view'
import MarkdownIt from 'markdown-it'
import 'prosemirror-view/style/prosemirror.css'

/** Light formatting: paragraphs, lists, bold and italic; nothing that leads elsewhere. */
const schema = new Schema({
  nodes: ['blockquote', 'horizontal_rule', 'heading', 'code_block', 'image'].reduce(
    (nodes, name) => nodes.remove(name),
    full.spec.nodes,
  ),
  marks: full.spec.marks.remove('link').remove('code'),
})

/** Reads just these of CommonMark; what else is written stays text. */
const markdown = new MarkdownIt('commonmark', { html: false }).disable([
  'image',
  'link',
  'autolink',
  'backticks',
  'blockquote',
  'code',
  'fence',
  'heading',
  'lheading',
  'hr',
  'reference',
])
const parser = new MarkdownParser(schema, markdown, {
  paragraph: { block: 'paragraph' },
  list_item: { block: 'list_item' },
  bullet_list: { block: 'bullet_list' },
  ordered_list: { block: 'ordered_list' },
  hardbreak: { node: 'hard_break' },
  em: { mark: 'em' },
  strong: { mark: 'strong' },
})

/** What can be done to what is selected. */
export type RichAct = 'bold' | 'italic' | 'bullets' | 'numbers'
function part<T>(found: T | undefined): T {
  if (found === undefined) throw new Error('The schema lacks a part of light formatting.')
  return found
}
const nodeType = (name: string): NodeType => part(schema.nodes[name])
const markType = (name: string): MarkType => part(schema.marks[name])
const ACTS: Readonly<Record<RichAct, Command>> = {
  bold: toggleMark(markType('strong')),
  italic: toggleMark(markType('em')),
  bullets: wrapInList(nodeType('bullet_list')),
  numbers: wrapInList(nodeType('ordered_list')),
}

export interface RichEditor {
  act: (act: RichAct) => void
  /** Puts another text in, as when it was brought back. */
  write: (markdown: string) => void
  end: () => void
}

/** An editor of lightly formatted text in an element; `written` is told the text as CommonMark. */
export function editRichText(
  element: HTMLElement,
  begin: string,
  attributes: Record<string, string>,
  { written, left }: { written: (markdown: string) => void; left: () => void },
): RichEditor {
  const item = nodeType('list_item')
  const keys = {
    'Mod-b': ACTS.bold,
    'Mod-i': ACTS.italic,
    'Mod-z': undo,
    'Mod-y': redo,
    'Shift-Mod-z': redo,
    Enter: splitListItem(item),
    'Mod-]': sinkListItem(item),
    'Mod-[': liftListItem(item),
  }
  const stateOf = (markdown: string) =>
    EditorState.create({
      doc: parser.parse(markdown),
      plugins: [history(), keymap(keys), keymap(baseKeymap)],
    })
  const textOf = (state: EditorState) => defaultMarkdownSerializer.serialize(state.doc)
  const view = new EditorView(element, {
    state: stateOf(begin),
    attributes,
    dispatchTransaction(transaction) {
      view.updateState(view.state.apply(transaction))
      if (transaction.docChanged) written(textOf(view.state))
    },
    handleDOMEvents: { blur: () => left() },
  })
  return {
    act: act => {
      ACTS[act](view.state, view.dispatch)
      view.focus()
    },
    write: markdown => {
      if (markdown !== textOf(view.state)) view.updateState(stateOf(markdown))
    },
    end: () => view.destroy(),
  }
}
