import { dayNumber, isoFromDay } from '../core/expressions/dates'
import type { Answers } from '../core/form/answers'
import { seededRandom } from '../core/fill/draw'
import { drawPlausibleAnswers } from '../core/fill/plausible'
import { planOf } from '../core/fill/plan'
import type { Form } from '../core/form/definition'

/** Words of the Wherry Reach scenario for short texts, by question code; other texts get a plain remark. */
const WORDS: Readonly<Record<string, readonly string[]>> = {
  owner_name: [
    'Ines Marlow',
    'Tobias Rudd',
    'Hanna Oakes',
    'Piet Sorrel',
    'Margit Elder',
    'Caspar Wren',
    'Lotte Fenn',
    'Edmund Tarn',
  ],
  reporter: ['Ines Marlow', 'Caspar Wren', 'Lotte Fenn'],
  guardian: ['Hanna Oakes', 'Edmund Tarn'],
  doctor_name: ['Dr Sorrel', 'the harbour medic'],
  boat_name: [
    'Grey Wagtail',
    'Samphire',
    'Little Egret',
    'Marsh Light',
    'Teasel',
    'Dunlin',
    'Ruddock',
    'Sea Holly',
  ],
  insurer: ['Reach Mutual', 'Saltmarsh Marine', 'Tern & Daughters'],
  repair_what: [
    'Plank in way of the stem',
    'Rudder bearing',
    'Osmosis below the waterline',
    'Bent stanchion',
  ],
  damaged: ['A cradle arm', 'The winch cable', 'A dinghy on its trolley'],
  told: [
    'The cradle slipped a hand’s breadth and held.',
    'Wet weed on the slip.',
    'Nobody stood at the brake.',
  ],
  phone_no: ['01632 960112', '01632 960431'],
  engine_make: ['Reachcraft 3-28', 'Tern Marine 40', 'Marshline E10'],
  went_wrong: ['The lift was two hours late.', 'Nobody told me of the second bill.'],
  signature: ['Ines Marlow', 'Hanna Oakes', 'Piet Sorrel'],
  mail_to: ['owner@wherry.example', 'crew@samphire.example'],
}
const REMARKS = [
  'Please call before the lift.',
  'Low water springs suit us best.',
  'Key is with the harbour office.',
  'No hurry.',
]

const TRIES = 60

/** Where in the year something falls that is spread evenly otherwise: more in two seasons, fewer between them; still in order. */
const inSeason = (share: number): number => share - 0.06 * Math.sin(4 * Math.PI * share)

/**
 * Made-up complete responses to a form, spread over the year before a day.
 * @throws Error when no complete response is found, which says that the form can't be finished
 */
export function makeUpResponses(
  form: Form,
  count: number,
  today: string,
  seed: number,
): { begunOn: string; answers: Answers }[] {
  const plan = planOf(form)
  const next = seededRandom(seed)
  const last = dayNumber(today) ?? 0
  return Array.from({ length: count }, (_, i) => {
    const begunOn = isoFromDay(last - Math.floor(365 * inSeason((i + next()) / count)))
    for (let attempt = 0; attempt < TRIES; attempt++) {
      const answers = drawPlausibleAnswers(plan, {}, begunOn, next, code => WORDS[code] ?? REMARKS)
      if (answers) return { begunOn, answers }
    }
    throw new Error(`No complete response to “${form.title}” was found.`)
  })
}
