// @vitest-environment happy-dom
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { useGridKeys, type GridActions } from './useGridKeys'

/** A grid of texts that is worked by keys alone: where it stands, what is marked, what is being typed. */
function openGrid(lines: number, columns: number) {
  const grid = {
    at: [0, 0] as [number, number],
    anchor: [0, 0] as [number, number],
    typing: null as string | null,
    log: [] as string[],
  }
  const within = (n: number, size: number) => Math.max(0, Math.min(size - 1, n))
  const note = (words: string) => () => void grid.log.push(words)
  const actions: GridActions = {
    isTyping: () => grid.typing !== null,
    go(down, right, stretch = false) {
      grid.at = [within(grid.at[0] + down, lines), within(grid.at[1] + right, columns)]
      if (!stretch) grid.anchor = grid.at
    },
    commit(down, right) {
      grid.log.push(`commit ${grid.typing ?? ''}`)
      grid.typing = null
      actions.go(down, right)
    },
    leaveTyping: () => (grid.typing = null),
    begin: (text = '') => (grid.typing = text),
    insert: note('insert'),
    move: by => void grid.log.push(`move ${by}`),
    clear: note('clear'),
    fillDown: note('fill down'),
    selectAll: note('select all'),
    isAtEdge: backwards => grid.at[1] === (backwards ? 0 : columns - 1),
    size: () => ({ lines, columns, linesOnScreen: 3 }),
  }
  const keys = useGridKeys(actions)
  /** Presses a key; true when the grid kept it for itself. */
  function press(key: string, more: KeyboardEventInit = {}): boolean {
    const event = new KeyboardEvent('keydown', { key, cancelable: true, ...more })
    keys(event)
    return event.defaultPrevented
  }
  return { grid, press }
}

const KEYS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'PageUp', 'PageDown', 'Home', 'End', 'Tab']

describe('the keys of a grid', () => {
  it('moving never types nor changes a cell, and Shift alone keeps the other end of the selection', () => {
    const pressed = fc.record({
      key: fc.constantFrom(...KEYS),
      shiftKey: fc.boolean(),
      ctrlKey: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(pressed, { maxLength: 12 }), presses => {
        const { grid, press } = openGrid(5, 4)
        for (const { key, ...more } of presses) {
          const { anchor, at } = grid
          if (!press(key, more)) expect([grid.anchor, grid.at]).toEqual([anchor, at])
          else if (more.shiftKey && key !== 'Tab') expect(grid.anchor).toEqual(anchor)
          else expect(grid.anchor).toEqual(grid.at)
        }
        expect(grid.typing).toBeNull()
        expect(grid.log).toEqual([])
      }),
    )
  })

  it('a letter begins a cell with itself, Enter with what stands there; then both commit and go on', () => {
    const { grid, press } = openGrid(5, 4)
    expect(press('w')).toBe(true)
    expect(grid.typing).toBe('w')
    expect(press('o'), 'a letter within the cell is the input’s own').toBe(false)
    expect(press('ArrowLeft'), 'so is the way through its text').toBe(false)
    press('Enter')
    expect([grid.log, grid.at]).toEqual([['commit w'], [1, 0]])
    press('Enter')
    expect(grid.typing).toBe('')
    press('Tab')
    expect([grid.at, grid.typing]).toEqual([[1, 1], null])
    press('F2')
    press('Escape')
    expect([grid.log.length, grid.at]).toEqual([2, [1, 1]])
  })

  it('Tab leaves the grid at its edge, and stays in it elsewhere', () => {
    const { grid, press } = openGrid(2, 2)
    expect(press('Tab', { shiftKey: true })).toBe(false)
    expect(press('Tab')).toBe(true)
    expect(press('Tab')).toBe(false)
    expect(grid.at).toEqual([0, 1])
  })

  it('commands act on rows; the browser keeps those that are not ours', () => {
    const { grid, press } = openGrid(5, 4)
    press('ArrowDown', { altKey: true })
    press('Enter', { ctrlKey: true })
    press('d', { ctrlKey: true })
    press('A', { metaKey: true })
    press('Delete')
    expect(grid.log).toEqual(['move 1', 'insert', 'fill down', 'select all', 'clear'])
    expect(press('r', { ctrlKey: true })).toBe(false)
    expect(press('x', { altKey: true })).toBe(false)
    expect(grid.typing).toBeNull()
  })
})
