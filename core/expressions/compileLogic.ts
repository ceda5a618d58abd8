import type { Compiled } from './compiled'

/** `and`: false as soon as one is false, else unknown as soon as one is. */
export function compileAnd(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots, locals) => {
      const first = a(slots, locals)
      if (first === false) return false
      const second = b(slots, locals)
      if (second === false) return false
      return first === true && second === true ? true : null
    }
  }
  return (slots, locals) => {
    let result: boolean | null = true
    for (const part of parts) {
      const value = part(slots, locals)
      if (value === false) return false
      if (value !== true) result = null
    }
    return result
  }
}

/** `or`: true as soon as one is true, else unknown as soon as one is. */
export function compileOr(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots, locals) => {
      const first = a(slots, locals)
      if (first === true) return true
      const second = b(slots, locals)
      if (second === true) return true
      return first === false && second === false ? false : null
    }
  }
  return (slots, locals) => {
    let result: boolean | null = false
    for (const part of parts) {
      const value = part(slots, locals)
      if (value === true) return true
      if (value !== false) result = null
    }
    return result
  }
}

/** `not`: what is unknown stays so. */
export function compileNot(value: Compiled): Compiled {
  return (slots, locals) => {
    const v = value(slots, locals)
    return typeof v === 'boolean' ? !v : null
  }
}
