import type { QuestionOf } from './questions'

/** What texts are called, and what they are then likely to hold; the first that fits counts. */
const BY_WORDS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/boat|vessel|ship/, ['Sea Holly', 'Grey Heron', 'Marsh Tern']],
  [/insurer|company|firm|club|employer|organi[sz]ation|supplier|school/, ['Tern Mutual', 'Reach & Sons']],
  [/first name|given name/, ['Ines', 'Piet', 'Lotte']],
  [/surname|family name|last name/, ['Marlow', 'Quint', 'Harrow']],
  [
    /your|full name|owner|who|guardian|parent|contact|skipper|patient|child|applicant|witness|manager|person|teacher|driver/,
    ['Ines Marlow', 'Piet Quint', 'Lotte Harrow'],
  ],
  [/name/, ['Holly', 'Robin', 'Heron']],
  [/postcode|post code|\bzip\b/, ['WR1 4QR', 'WR2 7LD']],
  [/town|city|harbour|country/, ['Wherry Reach', 'Tern Mouth']],
  [/street|address|where|place|location|site|meet/, ['Quay Road 4', 'Boathouse Lane 12']],
  [/room|floor|bay|berth|desk/, ['B 12', 'C 3']],
  [/colou?r/, ['dark green', 'white']],
  [/make|model|type|kind|brand/, ['Reach 24', 'Tern 8']],
  [/job|role|position|occupation|profession|title/, ['rigger', 'bookkeeper']],
  [/department|team|unit|crew/, ['Workshop', 'Office']],
  [/medicine|medication|drug/, ['none regularly']],
  [/allerg|diet|food|eat/, ['nuts', 'no fish']],
  [/symptom|complaint|illness|injur|pain/, ['a sore shoulder']],
  [/damage|fault|defect|broken|problem/, ['a crack at the stern']],
  [/reason|why|purpose|cause/, ['moving house', 'the old one is worn']],
  [/how|which way|method/, ['by boat', 'on foot']],
  [/material|fabric/, ['oak', 'steel']],
  [/size|length|width|height|weight/, ['about 4 m', '12 kg']],
  [/iban|account/, ['XX00 0104 0104 0104']],
  [/plate|registration|licen[cs]e/, ['WR 104', 'WR 227']],
  [/number|\bno\b|code|sign|reference|\bid\b/, ['WR-104', 'WR-227']],
  [/language/, ['English', 'Dutch']],
  [/wish|request|remark|comment|note|else|detail/, ['a quiet place, please', 'nothing further']],
  [/item|thing|article|product|tool|equipment|gear|part/, ['two oars', 'a ladder']],
  [/event|occasion|subject|topic/, ['the summer fair']],
  [/relation/, ['sister', 'neighbour']],
]
/** Where a label says nothing that is known. */
const OTHERWISE = ['as agreed', 'the usual'] as const

/** What a short text is likely to hold, by its label and code; the likeliest first. For examples and practice answers, never for a decision. */
export function likelyTexts({ label, code }: Pick<QuestionOf<'text'>, 'label' | 'code'>): readonly string[] {
  const words = `${label} ${code.replaceAll('_', ' ')}`.toLowerCase()
  return BY_WORDS.find(([pattern]) => pattern.test(words))?.[1] ?? OTHERWISE
}
