/** The path of a file in the package that another names: relative to that, or from its root (ECMA-376, part 2). */
export function pathFrom(from: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1)
  const path = from.split('/').slice(0, -1)
  for (const step of target.split('/')) {
    if (step === '..') path.pop()
    else if (step !== '.') path.push(step)
  }
  return path.join('/')
}
