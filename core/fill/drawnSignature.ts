/** The field on which signatures are drawn, in the coordinates of their paths. */
export const DRAWN_ON = { width: 600, height: 200 } as const

/** A signature as it was drawn, as an SVG. */
export const signatureSvg = (path: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${DRAWN_ON.width} ${DRAWN_ON.height}"><path d="${path.replace(/[^\dML -]/g, '')}" fill="none" stroke="black" stroke-width="3" stroke-linecap="round" stroke-linejoin="round"/></svg>`

/** A drawn signature is a path of whole coordinates, as SVG writes it. */
const DRAWN = /^(?:[ML]-?\d{1,5} -?\d{1,5} ?)+$/
const LONGEST_DRAWING = 40_000

/** Whether a text is the path of a drawn signature. */
export const isDrawing = (path: string): boolean => path.length <= LONGEST_DRAWING && DRAWN.test(path)
