import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { richForm } from '../../tests/support/richForms'
import { seededRandom } from '../fill/draw'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import { drawPlausibleAnswers } from '../fill/plausible'
import type { Form } from '../form/definition'
import { applyEdits } from '../form/edits'
import { listPlaces } from '../form/walk'
import { betweenEdits, leadEdits, turnEdits } from './edits'
import { END, listSectionGraph, listTurnGraph, sectionId, type MapGraph } from './graph'
import { layOutMap, NODE, type Point } from './layout'
import { measureWays } from './lengths'
import { collapseRuns } from './runs'
import { drawMapSvg } from './svg'
import { waysTaken } from './ways'

const TODAY = '2026-11-24'
const seed = fc.integer({ min: 1, max: 1e9 })
const mapOf = (form: Form) => listSectionGraph(form, listPlaces(form))
/** A form of many sections, some with routes past others. */
const manySections = fc
  .array(fc.record({ isRuled: fc.boolean(), leap: fc.nat(6) }), { minLength: 1, maxLength: 40 })
  .map((sections): Form => {
    const code = (i: number) => (i < sections.length ? `s${i}` : 'finish')
    return {
      tobbin: 2,
      code: 'f',
      title: 'F',
      parties: [
        { code: 'a', name: 'A' },
        { code: 'b', name: 'B' },
      ],
      turns: ['a', 'b'].map((party, n) => ({
        ...{ code: party, party, by: 'link' as const },
        access: Object.fromEntries(
          sections.map((_, i) => [`s${i}`, i % 2 === n ? ('fills' as const) : ('reads' as const)]),
        ),
      })),
      sections: sections.map(({ isRuled, leap }, i) => ({
        code: code(i),
        title: `Section ${i}`,
        items: [{ kind: 'question', type: 'yesNo', code: `q${i}`, label: `Q${i}` }],
        ...(isRuled && i > 0 ? { shownWhen: `q${i - 1} = true` } : {}),
        ...(leap > 3 ? { routes: [{ when: `q${i} = true`, to: code(i + leap - 2) }] } : {}),
      })),
    }
  })

describe('the map', () => {
  it('has every way that a response takes, and its lengths hold what is asked', () => {
    fc.assert(
      fc.property(seed, fc.nat(50), (s, t) => {
        const form = richForm(s)
        const plan = planOf(form)
        const graph = mapOf(form)
        const answers = drawPlausibleAnswers(plan, {}, TODAY, seededRandom(s + t), () => ['oak'], t % 2)
        if (!answers) return
        const state = fill(plan, answers, TODAY)
        const ways = [...state.path.map(sectionId), END]
        const passedOver = (id: string) => {
          const at = graph.nodes.findIndex(n => n.id === id)
          return graph.nodes[at]?.rule != null ? graph.nodes[at + 1]?.id : undefined
        }
        const reachable = (from: string, to: string | undefined) =>
          graph.edges.some(e => {
            if (e.from !== from) return false
            let at: string | undefined = e.to
            // A section whose rule is false leads on to the next one.
            while (at !== undefined && at !== to) at = passedOver(at)
            return at === to
          })
        for (const [i, from] of ways.slice(0, -1).entries())
          expect([from, ways[i + 1], reachable(from, ways[i + 1])]).toEqual([from, ways[i + 1], true])
        // With every way lit that it takes, and no other end of it.
        const lit = graph.edges.filter(e => waysTaken(graph, ways).has(e.id))
        const passed = new Set(lit.flatMap(e => [e.from, e.to]))
        for (const id of ways) expect(ways.length > 1 && !passed.has(id) ? id : '').toBe('')
        const lengths = measureWays(graph, plan.places)
        const asked = plan.places.filter(
          p =>
            p.kind === 'question' &&
            !['value', 'hidden'].includes(p.node.type) &&
            p.entryOf === null &&
            state.inPlay[p.order],
        ).length
        if (plan.places.every(p => p.kind !== 'question' || p.entryOf === null))
          expect(asked).toBeLessThanOrEqual(lengths?.longest.questions ?? 0)
      }),
      { numRuns: 150 },
    )
  })
})

describe('the map', () => {
  it('of straight runs drawn together has the same ways, and no section twice', () => {
    fc.assert(
      fc.property(manySections, form => {
        const whole = mapOf(form)
        const drawn = collapseRuns(whole, new Set())
        const all = drawn.nodes.flatMap(n => n.sections)
        expect(all).toEqual(form.sections.map((_, i) => i))
        const inside = (e: MapGraph['edges'][number], g: MapGraph) => g.nodes.some(n => n.id === e.from)
        expect(drawn.edges.every(e => inside(e, drawn))).toBe(true)
        const apart = collapseRuns(whole, new Set(whole.nodes.map(n => n.id)))
        expect(apart).toEqual(whole)
        expect(drawn.edges.filter(e => e.kind !== 'next')).toHaveLength(
          whole.edges.filter(e => e.kind !== 'next').length,
        )
      }),
    )
  })
})

/** Whether a point is on the border of a node, but for rounding. */
function isOnBorder(point: Point, at: Point): boolean {
  const [x, y] = [point.x - at.x, point.y - at.y]
  const near = (a: number, b: number) => Math.abs(a - b) < 0.01
  const isWithin = x > -0.01 && x < NODE.width + 0.01 && y > -0.01 && y < NODE.height + 0.01
  return isWithin && (near(x, 0) || near(x, NODE.width) || near(y, 0) || near(y, NODE.height))
}

describe('the drawing', () => {
  it('has no two things in one place, ways from edge to edge, and everything of a party in its lane', () => {
    fc.assert(
      fc.property(manySections, fc.boolean(), (form, inLanes) => {
        const graph = mapOf(form)
        const laid = layOutMap(graph, inLanes)
        const boxes = graph.nodes.map(n => laid.nodes[n.id]!)
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(i + 1))
            expect(Math.abs(a.x - b.x) >= NODE.width || Math.abs(a.y - b.y) >= NODE.height).toBe(true)
        for (const e of graph.edges) {
          const { points } = laid.edges[e.id]!
          const [from, to] = [laid.nodes[e.from]!, laid.nodes[e.to]!]
          expect(isOnBorder(points[0]!, from)).toBe(true)
          expect(isOnBorder(points.at(-1)!, to)).toBe(true)
          // Nothing stands on a straight way.
          if (points.length > 2) continue
          const [top, bottom] = [points[0]!.y, points.at(-1)!.y]
          expect(boxes.some(b => b.y > top && b.y + NODE.height < bottom)).toBe(false)
        }
        for (const n of inLanes ? graph.nodes : []) {
          const lane = laid.lanes.find(l => l.lane === (n.lane ?? 0))!
          expect(laid.nodes[n.id]!.x).toBeGreaterThanOrEqual(lane.x)
          expect(laid.nodes[n.id]!.x + NODE.width).toBeLessThanOrEqual(lane.x + lane.width)
        }
      }),
      { numRuns: 60 },
    )
  })
})

describe('the drawing', () => {
  it('as SVG is one document, whatever is written in it', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (title, words) => {
        const form: Form = { tobbin: 2, code: 'f', title, sections: [{ code: 's', title: words, items: [] }] }
        const graph = mapOf(form)
        const say = () => words
        const svg = drawMapSvg(title, graph, layOutMap(graph, false), { node: say, edge: say, lane: say })
        expect(svg.match(/<svg /g)).toHaveLength(1)
        expect(svg.replaceAll(/<\/?(?:svg|title|defs|marker|path|rect|text)\b[^<>]*>/g, '')).not.toMatch(
          /[<>]/,
        )
      }),
    )
  })

  it('has the turns with every hand-off', () => {
    const form = richForm(1)
    const parties = [{ code: 'p', name: 'P' }]
    const turns = ['one', 'two', 'three'].map(code => ({ code, party: 'p', by: 'link' as const, access: {} }))
    const handing = turns.map(t =>
      t.code === 'one' ? { ...t, handOff: [{ when: '1 = 1', to: 'three' }] } : t,
    )
    const { nodes, edges } = listTurnGraph({ ...form, parties, turns: handing }, t => t.code)
    expect(nodes.map(n => n.title)).toEqual(['one', 'two', 'three', 'Done'])
    expect(edges.map(e => [e.from, e.to, e.when])).toEqual([
      ['turn-one', 'turn-three', '1 = 1'],
      ['turn-one', 'turn-two', null],
      ['turn-two', 'turn-three', null],
      ['turn-three', 'end', null],
    ])
    const atOnce = handing.map(t => (t.code === 'three' ? { ...t, alongside: 'two' } : t))
    const beside = listTurnGraph({ ...form, parties, turns: atOnce }, t => t.code)
    expect(new Set(beside.nodes.map(n => n.id)).size).toBe(4)
    expect(beside.edges.map(e => [e.from, e.to, e.kind])).toEqual([
      ['turn-one', 'turn-two', 'handOff'],
      ['turn-one', 'turn-two', 'next'],
      ['turn-two', 'turn-three', 'alongside'],
      ['turn-three', 'end', 'next'],
    ])
  })
})

describe('writing on the map', () => {
  const nat = fc.nat(1000)
  /** Two nodes, the first before the second, and a way that leads on from the first. */
  function pick(graph: MapGraph, a: number, b: number) {
    const from = graph.nodes[a % (graph.nodes.length - 1)]!
    const later = graph.nodes.slice(graph.nodes.indexOf(from) + 1)
    const exits = graph.edges.filter(e => e.from === from.id)
    return { from: from.id, to: later[b % later.length]!.id, edge: exits[(a + b) % exits.length]! }
  }

  it('a section, or one of its exits, leads where it is drawn to; other ways stay', () => {
    fc.assert(
      fc.property(manySections, nat, nat, (form, a, b) => {
        const graph = mapOf(form)
        const { from, to, edge } = pick(graph, a, b)
        const led = mapOf(applyEdits(form, leadEdits(graph, form, from, to)).form)
        expect(led.edges.some(e => e.from === from && e.to === to && e.when === null)).toBe(true)
        const edits = turnEdits(graph, form, listPlaces(form), edge, to)
        const turned = mapOf(applyEdits(form, edits).form)
        expect(turned.edges.some(e => e.from === from && e.to === to && e.when === edge.when)).toBe(true)
        const others = (g: MapGraph) => g.edges.filter(e => e.from !== from)
        expect([others(led), others(turned)]).toEqual([others(graph), others(graph)])
      }),
    )
  })

  it('a section is put on a way: the way leads to it, and it on to where the way led', () => {
    fc.assert(
      fc.property(manySections, nat, nat, (form, a, b) => {
        const graph = mapOf(form)
        const { edge } = pick(graph, a, b)
        const target = graph.nodes.find(n => n.id === edge.to)
        const made = applyEdits(form, betweenEdits(graph, form, listPlaces(form), edge, 'Between')).form
        expect(made.sections).toHaveLength(form.sections.length + 1)
        const now = mapOf(made)
        const between = now.nodes.find(n => n.title === 'Between')!
        const idNow = (title: string | undefined) => now.nodes.find(n => n.title === title)?.id
        expect(now.edges.some(e => e.to === between.id && e.when === edge.when)).toBe(true)
        expect(now.edges.filter(e => e.from === between.id).map(e => e.to)).toEqual([idNow(target?.title)])
        // Every other way leads where it led.
        const ways = (g: MapGraph, isOther: (e: MapGraph['edges'][number]) => boolean) => {
          const titleOf = (id: string) => g.nodes.find(n => n.id === id)?.title
          const told = g.edges.filter(isOther).map(e => [titleOf(e.from), titleOf(e.to), e.when].join(' | '))
          return told.sort()
        }
        const isPassedOver = now.edges.some(e => e.kind === 'over' && e.to === between.id)
        if (!isPassedOver)
          expect(ways(now, e => e.from !== between.id && e.to !== between.id)).toEqual(
            ways(graph, e => e.id !== edge.id),
          )
      }),
    )
  })
})
