import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { retypeQuestion } from './create'
import { Form } from './definition'
import { Question } from './questions'
import { listPlaces } from './walk'

const every = Form.parse(JSON.parse(readFileSync('tests/fixtures/every_type.form.json', 'utf8')))
const questions = listPlaces(every).flatMap(p => (p.kind === 'question' ? [p.node] : []))
const retyped = (question: Question, type: Question['type'], before: readonly Question[] = []): Question => {
  const set = Object.entries({ ...question, ...retypeQuestion(question, type, before) })
  return Question.parse(Object.fromEntries(set.filter(([, value]) => value !== null)))
}

it('a question that gets any other type and its own again is what it was', () => {
  for (const question of questions)
    for (const { type } of questions)
      if (type !== question.type)
        expect(retyped(retyped(question, type), question.type, [question])).toEqual(question)
})

it('what was taken away under another type does not come back', () => {
  const hull = questions.find(q => q.type === 'choice')
  if (!hull) throw new Error('There is no choice.')
  const helped = { ...hull, help: 'Look at the keel.' }
  const { help: _, ...bare } = retyped(helped, 'text') as Question & { help?: string }
  expect(retyped(bare, 'choice', [helped])).not.toHaveProperty('help')
})
