import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  closeBracketsKeymap,
  completionKeymap,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { bracketMatching } from '@codemirror/language'
import { setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { EditorState, type Extension } from '@codemirror/state'
import { EditorView, keymap, placeholder } from '@codemirror/view'
import type { Suggested } from './useCompletions'

interface Wanted {
  /** Whether it may be written in, or only be read. */
  isEditable: boolean
  parent: HTMLElement
  text: string
  label: string
  placeholder: string
  suggest: (before: string) => Suggested
  onWrite: (text: string) => void
}
const MOST_SUGGESTED = 40
const KINDS = { question: 'variable', choice: 'constant', function: 'function' } as const

/** What completes the expression before the caret. */
const completing = (suggest: Wanted['suggest']): Extension =>
  autocompletion({
    icons: false,
    maxRenderedOptions: MOST_SUGGESTED,
    // What is shown is taken at once, however fast somebody types.
    interactionDelay: 0,
    override: [context => completionsAt(suggest, context)],
  })

function completionsAt(suggest: Wanted['suggest'], context: CompletionContext): CompletionResult | null {
  const { typed, options } = suggest(context.state.sliceDoc(0, context.pos))
  if (options.length === 0) return null
  return {
    from: context.pos - typed,
    // What fits has been looked up already, by labels too.
    filter: false,
    options: options.map(o => ({ label: o.text, detail: o.words, type: KINDS[o.kind] })),
    // The list follows every letter at once: one that is looked up later can’t be taken meanwhile, and Enter would begin a line.
    update: (_known, _from, _to, next) => completionsAt(suggest, next),
  }
}

/** An editor for one expression, with its completions. Errors are set from outside. */
export function createExpressionEditor(wanted: Wanted) {
  const view = new EditorView({
    parent: wanted.parent,
    state: EditorState.create({
      doc: wanted.text,
      extensions: [
        history(),
        closeBrackets(),
        bracketMatching(),
        completing(wanted.suggest),
        keymap.of([
          { key: 'Tab', run: acceptCompletion },
          ...closeBracketsKeymap,
          ...completionKeymap,
          ...historyKeymap,
          ...defaultKeymap,
        ]),
        placeholder(wanted.placeholder),
        EditorView.editable.of(wanted.isEditable),
        EditorView.cspNonce.of(ownNonce()),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': wanted.label, spellcheck: 'false' }),
        EditorView.updateListener.of(update => {
          if (update.docChanged) wanted.onWrite(update.state.doc.toString())
        }),
      ],
    }),
  })
  return {
    focus: () => view.focus(),
    /** Takes a text from outside; the same one leaves the caret where it is. */
    setText(text: string) {
      if (text === view.state.doc.toString()) return
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } })
    },
    replace(from: number, to: number, insert: string) {
      view.dispatch({
        changes: { from, to: Math.min(to, view.state.doc.length), insert },
        selection: { anchor: from + insert.length },
      })
      view.focus()
    },
    setProblem(problem: { from: number; to: number; sentence: string } | null) {
      const end = view.state.doc.length
      const marks: Diagnostic[] = problem
        ? [
            {
              from: Math.min(problem.from, end),
              to: Math.min(problem.to, end),
              severity: 'error',
              message: problem.sentence,
            },
          ]
        : []
      view.dispatch(setDiagnostics(view.state, marks))
    },
    destroy: () => view.destroy(),
  }
}
