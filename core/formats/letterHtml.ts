const MARKS: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}

/** A text as it stands in HTML: no sign of it means anything there. */
export const escapeHtml = (text: string): string => text.replaceAll(/[&<>"']/g, mark => MARKS[mark] ?? mark)

/** Paths of this application, as letters name them: where nothing of another address stands before. */
const OWN_LINK = /(?<![\w/.:-])\/(?:key|f|forms|s|pay)\/[\w?=&/#~-]+/g

/** A letter with its links as they are opened from outside. @param site such as `https://forms.wherry.example` */
export const withWholeLinks = (text: string, site: string): string =>
  text.replaceAll(OWN_LINK, path => new URL(path, site).href)

/** A letter whose links open nothing any more. */
export const withoutLinks = (text: string): string => text.replaceAll(/\/(key|f|s|pay)\/[\w~-]+/g, '/$1/…')

/** A letter as HTML: paragraphs, and the links of this application to be pressed. What respondents wrote stays text. */
export function letterHtml(text: string, site: string): string {
  const linked = (line: string): string => {
    let last = 0
    let html = ''
    for (const { 0: path, index } of line.matchAll(OWN_LINK)) {
      const href = escapeHtml(new URL(path, site).href)
      html += `${escapeHtml(line.slice(last, index))}<a href="${href}">${href}</a>`
      last = index + path.length
    }
    return html + escapeHtml(line.slice(last))
  }
  const paragraphs = text
    .split(/\n{2,}/)
    .map(part => `<p>${part.split('\n').map(linked).join('<br>')}</p>`)
    .join('\n')
  return `<!doctype html><html><body style="font-family: sans-serif; line-height: 1.5">\n${paragraphs}\n</body></html>`
}
