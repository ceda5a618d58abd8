import type { Column } from 'pdfmake/interfaces'
import type { PictureRun } from '../documents/content'
import { isWholeJpeg } from '../documents/wholeJpeg'
import { isWholePng } from '../documents/wholePng'

/** A picture, made smaller where it would not fit on a page; in place of a damaged one stands that it is. */
export function setPicture({ type, bytes, width, height }: Omit<PictureRun, 'is'>): Column {
  // By what it is, not by what its name says.
  const isWhole = isWholePng(bytes) || isWholeJpeg(bytes)
  if (!isWhole) return { text: 'a picture that can’t be shown', italics: true, color: '#555555' }
  const scale = Math.min(1, WIDEST / width, HIGHEST / height)
  const image = `data:${type};base64,${base64Of(bytes)}`
  return { image, width: width * scale, height: height * scale }
}
const WIDEST = 480
const HIGHEST = 640

/** Bytes as base64 (RFC 4648). */
function base64Of(bytes: Uint8Array): string {
  const pieces: string[] = []
  for (let i = 0; i < bytes.length; i += PIECE)
    pieces.push(String.fromCharCode(...bytes.subarray(i, i + PIECE)))
  return btoa(pieces.join(''))
}
const PIECE = 8_190
