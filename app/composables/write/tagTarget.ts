/** Where tags go that are pointed at: into the template that is written, while there is one; else they are copied. */
export interface TagTarget {
  put: ((text: string) => void) | null
}
const KEY = Symbol('tags')

/** The target of all that stands inside of who asks. */
export function provideTagTarget(): TagTarget {
  const target = shallowReactive<TagTarget>({ put: null })
  provide(KEY, target)
  return target
}
export const useTagTarget = (): TagTarget =>
  inject(KEY, () => shallowReactive<TagTarget>({ put: null }), true)
