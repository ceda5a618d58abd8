import { unzipSync } from 'fflate'

/** What is inside a DOCX (ECMA-376, Office Open XML): its files by name. */
export type DocxFiles = Record<string, Uint8Array>

/** A file can't be used as a template: why. */
export class NotATemplate extends Error {}

/** Bytes of a template at most; of a document that was made of one, with its pictures; of all that is packed in it; and files in it. */
export const LARGEST_TEMPLATE = 10_000_000
export const LARGEST_DOCUMENT = 45_000_000
const LARGEST_UNPACKED = 100_000_000
const MOST_FILES = 2_000

const MAIN = 'word/document.xml'
const MAIN_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml'

/**
 * Unpacks a DOCX. Nothing is unpacked that says it is larger than allowed, and nothing of a file is read beyond what it says.
 * @throws NotATemplate where it is none: no archive, no DOCX, with macros, too large, or with a document type of its own, which could name what stands elsewhere
 */
export function openDocx(bytes: Uint8Array, most = LARGEST_TEMPLATE): DocxFiles {
  if (bytes.length > most) throw new NotATemplate(`A template has at most ${most / 1_000_000} MB.`)
  if (startsWith(bytes, [0xd0, 0xcf, 0x11, 0xe0]))
    throw new NotATemplate('This is a document of an older kind. Save it as .docx and bring it in again.')
  if (!startsWith(bytes, [0x50, 0x4b])) throw new NotATemplate('This is no .docx file.')
  const files = unpack(bytes)
  const types = textOf(files, '[Content_Types].xml')
  if (/macroEnabled|vbaProject/i.test(types) || Object.keys(files).some(name => /vbaProject/i.test(name)))
    throw new NotATemplate('This document holds macros. Save it as .docx without them and bring it in again.')
  if (!files[MAIN] || !types.includes(MAIN_TYPE)) throw new NotATemplate('This is no .docx file.')
  for (const name of Object.keys(files))
    if (/\.(?:xml|rels)$/i.test(name) && /<!(?:DOCTYPE|ENTITY)/i.test(textOf(files, name)))
      throw new NotATemplate(`“${name}” in it declares a document type, which no word processor writes.`)
  return files
}

function unpack(bytes: Uint8Array): DocxFiles {
  let size = 0
  let count = 0
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize
        count += 1
        if (size > LARGEST_UNPACKED || count > MOST_FILES)
          throw new NotATemplate('What is packed in this file is too large to be unpacked.')
        return true
      },
    })
  } catch (error) {
    if (error instanceof NotATemplate) throw error
    throw new NotATemplate('This file is damaged: it can’t be unpacked.')
  }
}

const startsWith = (bytes: Uint8Array, begin: readonly number[]) => begin.every((b, i) => bytes[i] === b)

/** A file of it as text; empty where it is not there. UTF-16, which the standard allows, is told by its mark. */
export function textOf(files: DocxFiles, name: string): string {
  const bytes = files[name]
  if (!bytes) return ''
  const encoding = encodingOf(bytes)
  return new TextDecoder(encoding).decode(bytes)
}

function encodingOf(bytes: Uint8Array): string {
  if (startsWith(bytes, [0xff, 0xfe])) return 'utf-16le'
  return startsWith(bytes, [0xfe, 0xff]) ? 'utf-16be' : 'utf-8'
}

/** The files of it that hold text to be filled, the body first. */
export const textParts = (files: DocxFiles): string[] =>
  Object.keys(files)
    .filter(name => PART.test(name))
    .sort((a, b) => Number(b === MAIN) - Number(a === MAIN) || a.localeCompare(b))
const PART = /^word\/(?:document|header\d*|footer\d*|footnotes|endnotes)\.xml$/
