import { expressionOf, type Condition } from '#core/expressions/pointing'
import { print } from '#core/expressions/print'
import type { Place } from '#core/form/walk'
import type { BegunRule } from '~/stores/begunRules'

const FRESH: BegunRule = { condition: null, basis: undefined, isText: false }

/** Which rule it is: what it says at which place, and which of several there. */
interface RuleSpot {
  readonly place: Place
  readonly words: string
  readonly part?: string
}

/** What is begun of one rule: as it stands in the draft, with what is not finished, and whether it is written as text. */
export function useBegunRule(spot: RuleSpot, text: () => string | undefined) {
  const draft = useDraft()
  const { rules } = useBegunRules()
  const key = () => [draft.id, spot.place.address, spot.words, spot.part ?? ''].join(' ')
  const begun = computed(() => rules.get(key()) ?? FRESH)
  const put = (changed: Partial<BegunRule>) => rules.set(key(), { ...begun.value, basis: text(), ...changed })
  /** What is pointed at, as long as the rule in the draft is what it was begun on or what it came to. */
  const condition = computed({
    get: (): Condition | null => {
      const { condition: pointed, basis } = begun.value
      if (!pointed) return null
      const built = expressionOf(pointed)
      const comesTo = built ? print(built) : basis
      return comesTo === text() || (built !== null && basis === text()) ? pointed : null
    },
    set: pointed => put({ condition: pointed }),
  })
  const isText = computed({ get: () => begun.value.isText, set: is => put({ isText: is }) })
  return { condition, isText, forget: () => rules.delete(key()) }
}
