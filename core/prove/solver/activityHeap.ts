/** Variables with the most active on top. */
export class ActivityHeap {
  private heap: number[] = []
  private place: number[] = []
  constructor(private readonly activity: readonly number[]) {}

  insert(variable: number) {
    if ((this.place[variable] ?? -1) >= 0) return
    this.heap.push(variable)
    this.place[variable] = this.heap.length - 1
    this.up(this.heap.length - 1)
  }

  raised(variable: number) {
    const at = this.place[variable] ?? -1
    if (at >= 0) this.up(at)
  }

  pop(): number {
    const top = this.heap[0]
    if (top === undefined) return 0
    const last = this.heap.pop() ?? 0
    this.place[top] = -1
    if (this.heap.length > 0) {
      this.put(last, 0)
      this.down(0)
    }
    return top
  }

  private put(variable: number, at: number) {
    this.heap[at] = variable
    this.place[variable] = at
  }

  private activityAt = (at: number) => this.activity[this.heap[at] ?? 0] ?? 0

  private up(at: number) {
    const variable = this.heap[at] ?? 0
    const own = this.activity[variable] ?? 0
    while (at > 0) {
      const parent = (at - 1) >> 1
      if (this.activityAt(parent) >= own) break
      this.put(this.heap[parent] ?? 0, at)
      at = parent
    }
    this.put(variable, at)
  }

  private down(at: number) {
    const variable = this.heap[at] ?? 0
    const own = this.activity[variable] ?? 0
    for (;;) {
      let child = 2 * at + 1
      if (child >= this.heap.length) break
      if (child + 1 < this.heap.length && this.activityAt(child + 1) > this.activityAt(child)) child += 1
      if (this.activityAt(child) <= own) break
      this.put(this.heap[child] ?? 0, at)
      at = child
    }
    this.put(variable, at)
  }
}
