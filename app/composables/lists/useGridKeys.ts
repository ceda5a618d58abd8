/** What the keys of a list's grid do. */
export interface GridActions {
  isTyping: () => boolean
  go: (lines: number, columns: number, stretch?: boolean) => void
  commit: (lines: number, columns: number) => void
  leaveTyping: () => void
  begin: (text?: string) => void
  insert: () => void
  move: (by: 1 | -1) => void
  clear: () => void
  fillDown: () => void
  selectAll: () => void
  /** Whether Tab would leave the grid. */
  isAtEdge: (backwards: boolean) => boolean
  size: () => { lines: number; columns: number; linesOnScreen: number }
}

type Act = (actions: GridActions, event: KeyboardEvent) => void
type Keys = Readonly<Record<string, Act>>

const WHILE_TYPING: Keys = {
  Enter: actions => actions.commit(1, 0),
  Tab: (actions, event) => actions.commit(0, event.shiftKey ? -1 : 1),
  Escape: actions => actions.leaveTyping(),
}

const isCommand = (event: KeyboardEvent) => event.ctrlKey || event.metaKey

function stepLines(by: 1 | -1) {
  return (actions: GridActions, event: KeyboardEvent) => {
    if (event.altKey) return actions.move(by)
    const lines = isCommand(event) ? actions.size().lines : 1
    actions.go(by * lines, 0, event.shiftKey)
  }
}
function stepColumns(by: 1 | -1) {
  return (actions: GridActions, event: KeyboardEvent) => {
    const columns = isCommand(event) ? actions.size().columns : 1
    actions.go(0, by * columns, event.shiftKey)
  }
}
const stepScreen = (by: 1 | -1) => (actions: GridActions, event: KeyboardEvent) =>
  actions.go(by * actions.size().linesOnScreen, 0, event.shiftKey)
const stepToEdge = (by: 1 | -1) => (actions: GridActions, event: KeyboardEvent) =>
  actions.go(0, by * actions.size().columns, event.shiftKey)

const WHILE_MOVING: Keys = {
  ArrowUp: stepLines(-1),
  ArrowDown: stepLines(1),
  ArrowLeft: stepColumns(-1),
  ArrowRight: stepColumns(1),
  PageUp: stepScreen(-1),
  PageDown: stepScreen(1),
  Home: stepToEdge(-1),
  End: stepToEdge(1),
  Tab: (actions, event) => actions.go(0, event.shiftKey ? -1 : 1),
  Enter: (actions, event) => (isCommand(event) ? actions.insert() : actions.begin()),
  F2: actions => actions.begin(),
  Delete: actions => actions.clear(),
  Backspace: actions => actions.clear(),
}

const COMMANDS: Keys = {
  d: actions => actions.fillDown(),
  a: actions => actions.selectAll(),
}

/** What a key does in the state in which the grid is; undefined where the key is somebody else's. */
function actOf(event: KeyboardEvent, actions: GridActions): Act | undefined {
  if (actions.isTyping()) return WHILE_TYPING[event.key]
  if (event.key === 'Tab' && actions.isAtEdge(event.shiftKey)) return undefined
  const named = WHILE_MOVING[event.key]
  if (named) return named
  if (isCommand(event)) return COMMANDS[event.key.toLowerCase()]
  const isText = event.key.length === 1 && !event.altKey
  return isText ? () => actions.begin(event.key) : undefined
}

/** The keys of a list's grid. */
export const useGridKeys = (actions: GridActions) => (event: KeyboardEvent) => {
  const act = actOf(event, actions)
  if (!act) return
  act(actions, event)
  event.preventDefault()
  event.stopPropagation()
}
