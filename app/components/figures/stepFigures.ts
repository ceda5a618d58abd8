import type { PageSteps } from '#shared/api/pageSteps'
import type { Figure } from './figure'

const TIMES = ['under 15 s', 'under 1 min', 'under 3 min', 'under 10 min', 'longer']

/** Where people stop, and how long pages take, as figures; none where nothing was counted. */
export function stepFigures({ version, pages }: PageSteps): Figure[] {
  const [first] = pages
  if (!first) return []
  const labels = pages.map(p => p.title)
  const stops = pages.map(p => ({ title: p.title, stopped: Math.max(0, p.reached - p.left) }))
  const most = stops.reduce((a, b) => (b.stopped > a.stopped ? b : a))
  const base = { section: '', isShare: false, asked: [], labels }
  return [
    {
      ...base,
      key: '@steps',
      title: 'Where people stop',
      about: `${first.reached} began version ${version}; each counts once for a page, whoever it is`,
      told:
        most.stopped > 0
          ? `Most stop at “${most.title}”: ${most.stopped}, some of whom are still at it.`
          : '',
      series: [
        { name: 'Reached', values: pages.map(p => p.reached) },
        { name: 'Went on', values: pages.map(p => p.left) },
      ],
      shape: 'bars',
    },
    {
      ...base,
      key: '@times',
      title: 'How long pages take',
      about: 'Of those who went on, from when they reached it',
      told: '',
      isShare: true,
      series: TIMES.map((name, i) => ({ name, values: pages.map(p => shareOf(p.times, i)) })),
      shape: 'stacked',
    },
  ]
}

function shareOf(times: readonly number[], at: number): number {
  const all = times.reduce((sum, n) => sum + n, 0)
  return all === 0 ? 0 : Math.round((1_000 * (times[at] ?? 0)) / all) / 10
}
