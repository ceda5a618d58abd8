/** The longest name of a sheet, with room for a number behind it. */
const LONGEST = 28

/** Names as a workbook takes them (ECMA-376: at most 31 letters, without some signs), each once. */
function sheetNames(wanted: readonly string[]): string[] {
  const taken = new Set<string>()
  return wanted.map(name => {
    const plain =
      name
        .replaceAll(/[\\/?*[\]:']/g, ' ')
        .trim()
        .slice(0, LONGEST) || 'Sheet'
    let free = plain
    for (let n = 2; taken.has(free.toLowerCase()); n += 1) free = `${plain} ${n}`
    taken.add(free.toLowerCase())
    return free
  })
}

/** The sheets of a workbook of responses: the responses themselves, one for each group that repeats, and the codes of choices. */
export const workbookNames = (groups: readonly { title: string }[]): string[] =>
  sheetNames(['Responses', ...groups.map(group => group.title), 'Codes'])

/** The heads of a sheet of entries before their answers: the number of the response, and which of its entries it is. */
export const ENTRY_HEADS = ['Response', 'Entry'] as const
