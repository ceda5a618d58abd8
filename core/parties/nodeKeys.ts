/** Keys of a form's nodes that hold rules. */
export const RULES: ReadonlySet<string> = new Set([
  'shownWhen',
  'required',
  'readOnly',
  'default',
  'value',
  'narrowedBy',
  'rule',
  'when',
])
/** Keys that hold texts with quotes. */
export const TEXTS: ReadonlySet<string> = new Set([
  'label',
  'title',
  'text',
  'help',
  'message',
  'heading',
  'requiredMessage',
  'patternMessage',
])
/** What a party that only reads a question is not bothered with. */
export const ASKING: ReadonlySet<string> = new Set([
  'required',
  'requiredMessage',
  'messages',
  'atLeast',
  'atMost',
  'validWhen',
  'readOnly',
  'default',
])

/** A node without some of its keys. */
export const without = <T extends object>(node: T, keys: ReadonlySet<string>): T =>
  Object.fromEntries(Object.entries(node).filter(([key]) => !keys.has(key))) as T
