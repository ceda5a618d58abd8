/** Findings that go by how codes and labels are spelt (a copy's codes, the words of an option): another code may well change them. */
const BY_NAMES: ReadonlySet<string> = new Set([
  'twin-left',
  'lost-rule',
  'fits-another-choice',
  'falls-through',
])
export const goesByNames = (finding: { code: string }) => BY_NAMES.has(finding.code)
