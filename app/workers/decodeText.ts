/** The text of a file: UTF-8 with or without its mark; anything else is read as Windows-1252, as older spreadsheets write. */
export function decodeText(bytes: ArrayBuffer): string {
  return decoded(bytes).replace(/^\uFEFF/, '')
}

function decoded(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}
