/** Offers data to the person as a file. */
export function download(name: string, parts: BlobPart[], type: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob(parts, { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
