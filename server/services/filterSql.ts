import { standpointAtEnd } from '../../core/form/scope'
import { sql, type SQL } from 'drizzle-orm'
import type { Plan, PlannedQuestion } from '../../core/fill/planned'
import { BOOLEAN } from '../../core/expressions/types'
import { numberText } from '../../core/expressions/decimal'
import { sentenceOf, sentenceText } from '../../core/expressions/sentence'
import type { ArithmeticOp, CompareOp, Expr, ExprOf, TestNode } from '../../core/expressions/tree'
import type { QuestionType } from '../../core/form/questions'
import { wordingOf } from '../../core/form/names'
import type { FilterProblem } from '../../shared/api/responses'

/** A condition that the database can’t be asked: the sentence says which part. */
export class NotAsked extends Error {
  override name = 'NotAsked'
  constructor(readonly problems: FilterProblem[]) {
    super(problems[0]?.sentence ?? '')
  }
}

/** What an answer is in SQL: of one type, null where it is blank. */
type Kind = 'text' | 'number' | 'boolean' | 'codes'
interface Scalar {
  kind: Kind
  value: SQL
}

/** The types whose answers the database is asked about, and what they are there. */
const KINDS: Partial<Record<QuestionType, Kind>> = {
  ...{ text: 'text', longText: 'text', email: 'text', phone: 'text', url: 'text', choice: 'text' },
  ...{ date: 'text', time: 'text', dateTime: 'text' },
  ...{ integer: 'number', decimal: 'number', money: 'number', scale: 'number' },
  ...{ yesNo: 'boolean', choices: 'codes' },
}
/** What a hidden question holds, in SQL. */
const HELD: Record<'text' | 'number' | 'yesNo' | 'date', Kind> = {
  ...{ text: 'text', number: 'number', yesNo: 'boolean', date: 'text' },
}

/** How the database is asked about the answers to a question; null where it can’t be. */
export function askedKind({ place }: PlannedQuestion): Kind | null {
  const { node, entryOf } = place
  if (entryOf !== null) return null
  if (node.type === 'money' && node.currencies) return null
  if (node.type === 'longText' && node.rich) return null
  return node.type === 'hidden' ? HELD[node.holds ?? 'text'] : (KINDS[node.type] ?? null)
}

/**
 * A condition in the rule language as a condition of SQL over stored answers, which is true, false or unknown as the fill engine has it.
 * @param answer the stored answer to a question, as JSON
 * @param today ISO date
 * @throws {NotAsked} what can’t be read, or what the database can’t be asked
 */
export function filterSql(plan: Plan, text: string, answer: (code: string) => SQL, today: string): SQL {
  const stand = standpointAtEnd(plan.form)
  const { expr, syntax, problems } = plan.names.read(text, stand, BOOLEAN)
  if (syntax) throw new NotAsked([{ sentence: syntax.message, from: syntax.from, to: syntax.to }])
  if (!expr) throw new NotAsked(problems.map(({ sentence, from, to }) => ({ sentence, from, to })))
  return new FilterWriter(plan, answer, today).condition(expr)
}

const COMPARED: Record<Exclude<CompareOp, '=' | '!='>, SQL> = {
  '<': sql.raw('<'),
  '<=': sql.raw('<='),
  '>': sql.raw('>'),
  '>=': sql.raw('>='),
}
/** What the database calculates exactly as the engine does, within the digits that answers have. */
const CALCULATED: Partial<Record<ArithmeticOp, SQL>> = {
  '+': sql.raw('+'),
  '-': sql.raw('-'),
  '*': sql.raw('*'),
}
const NUMBER = '^-?\\d{1,40}(\\.\\d{1,40})?$'

/** Texts in the order of their code points, as the engine compares them. */
const inOrder = (text: SQL): SQL => sql`(${text} collate "C")`

class FilterWriter {
  constructor(
    private readonly plan: Plan,
    private readonly answer: (code: string) => SQL,
    private readonly today: string,
  ) {}

  condition(expr: Expr): SQL {
    switch (expr.kind) {
      case 'and':
        return sql`(${sql.join(
          expr.parts.map(p => this.condition(p)),
          sql` and `,
        )})`
      case 'or':
        return sql`(${sql.join(
          expr.parts.map(p => this.condition(p)),
          sql` or `,
        )})`
      case 'not':
        return sql`(not ${this.condition(expr.value)})`
      case 'compare':
        return this.compare(expr)
      case 'between':
        return this.range(this.scalar(expr.value), { ...expr, lowOpen: false, highOpen: false })
      case 'in':
        return this.membership(expr)
      case 'call':
        return this.call(expr)
      case 'if':
        return sql`(case when ${this.condition(expr.test)} then ${this.condition(expr.then)} else ${this.condition(expr.else)} end)`
      case 'null':
        return sql`null::boolean`
      case 'boolean':
      case 'name':
        return this.truth(expr)
      default:
        return this.refuse(expr)
    }
  }

  private truth(expr: ExprOf<'boolean' | 'name'>): SQL {
    const { kind, value } = this.scalar(expr)
    return kind === 'boolean' ? value : this.refuse(expr)
  }

  private compare(expr: ExprOf<'compare'>): SQL {
    const { op, left, right } = expr
    if (right.kind === 'null') {
      const value = left.kind === 'name' ? this.given(left) : this.scalar(left).value
      return op === '=' ? sql`(${value} is null)` : sql`(${value} is not null)`
    }
    return this.compared(op, this.scalar(left), this.scalar(right), expr)
  }

  private compared(op: CompareOp, left: Scalar, right: Scalar, expr: Expr): SQL {
    if (left.kind !== right.kind || left.kind === 'codes') return this.refuse(expr)
    if (op === '=') return sql`(${left.value} is not distinct from ${right.value})`
    if (op === '!=') return sql`(${left.value} is distinct from ${right.value})`
    if (left.kind === 'boolean') return this.refuse(expr)
    return sql`(${left.value} ${COMPARED[op]} ${right.value})`
  }

  private membership(expr: ExprOf<'in'>): SQL {
    const value = this.scalar(expr.value)
    const tests = expr.tests.map(test => this.test(value, test, expr))
    return sql`(${sql.join(tests, sql` or `)})`
  }

  private test(value: Scalar, test: TestNode, expr: Expr): SQL {
    if (test.kind === 'range') return this.range(value, test)
    if (test.kind === 'unaryTest') return this.compared(test.op, value, this.scalar(test.value), expr)
    if (test.kind === 'null') return sql`(${value.value} is null)`
    return this.compared('=', value, this.scalar(test), expr)
  }

  private range(
    value: Scalar,
    { low, high, lowOpen, highOpen }: { low: Expr; high: Expr; lowOpen: boolean; highOpen: boolean },
  ): SQL {
    const above = this.compared(lowOpen ? '>' : '>=', value, this.scalar(low), low)
    const below = this.compared(highOpen ? '<' : '<=', value, this.scalar(high), high)
    return sql`(${above} and ${below})`
  }

  private call(expr: ExprOf<'call'>): SQL {
    const [of, wanted] = expr.args
    if (!of || wanted?.kind !== 'text') return this.refuse(expr)
    const text = sql`${wanted.value}::text`
    const { kind, value } = this.scalar(of)
    if (expr.name === 'list contains' && kind === 'codes') return sql`jsonb_exists(${value}, ${text})`
    if (kind !== 'text') return this.refuse(expr)
    if (expr.name === 'contains') return sql`(strpos(${value}, ${text}) > 0)`
    if (expr.name === 'starts with') return sql`starts_with(${value}, ${text})`
    if (expr.name === 'ends with') return sql`(right(${value}, length(${text})) = ${text})`
    return this.refuse(expr)
  }

  private scalar(expr: Expr): Scalar {
    if (expr.kind === 'name') return this.named(expr)
    if (expr.kind === 'call') return this.measure(expr)
    if (expr.kind === 'arithmetic') return this.calculated(expr)
    return this.constant(expr)
  }

  private constant(expr: Expr): Scalar {
    if (expr.kind === 'number') return { kind: 'number', value: sql`${numberText(expr.value)}::numeric` }
    if (expr.kind === 'boolean') return { kind: 'boolean', value: sql`${expr.value}::boolean` }
    if (expr.kind === 'text' || expr.kind === 'date' || expr.kind === 'time' || expr.kind === 'dateTime')
      return { kind: 'text', value: inOrder(sql`${expr.value}::text`) }
    return this.refuse(expr)
  }

  private measure(expr: ExprOf<'call'>): Scalar {
    if (expr.name === 'today' && expr.args.length === 0)
      return { kind: 'text', value: inOrder(sql`${this.today}::text`) }
    if (expr.name === 'count') return this.counted(expr)
    return expr.name === 'string length' ? this.measured(expr) : this.refuse(expr)
  }

  /** An answer of any type, for whether there is one. */
  private given(expr: ExprOf<'name'>): SQL {
    const question = this.plan.byCode.get(expr.name)
    if (question && askedKind(question)) return this.scalar(expr).value
    if (!question || question.value || question.place.entryOf) return this.refuse(expr)
    return sql`nullif(${this.answer(expr.name)}, 'null'::jsonb)`
  }

  private calculated(expr: ExprOf<'arithmetic'>): Scalar {
    const sign = CALCULATED[expr.op]
    const [left, right] = [this.scalar(expr.left), this.scalar(expr.right)]
    if (!sign || left.kind !== 'number' || right.kind !== 'number') return this.refuse(expr)
    return { kind: 'number', value: sql`(${left.value} ${sign} ${right.value})` }
  }

  private measured(expr: ExprOf<'call'>): Scalar {
    const [of] = expr.args
    const found = of ? this.scalar(of) : null
    if (found?.kind !== 'text') return this.refuse(expr)
    return { kind: 'number', value: sql`length(${found.value})::numeric` }
  }

  private counted(expr: ExprOf<'call'>): Scalar {
    const [of] = expr.args
    const found = of ? this.scalar(of) : null
    if (found?.kind !== 'codes') return this.refuse(expr)
    return { kind: 'number', value: sql`jsonb_array_length(${found.value})::numeric` }
  }

  private named(expr: ExprOf<'name'>): Scalar {
    const question = this.plan.byCode.get(expr.name)
    const kind = question ? askedKind(question) : null
    if (!question || !kind) return this.refuse(expr)
    return { kind, value: answerAs(kind, this.answer(expr.name)) }
  }

  private refuse(expr: Expr): never {
    const told = sentenceText(sentenceOf(expr, wordingOf(this.plan.form, this.plan.places)))
    const sentence = `Responses can’t be filtered by this part: ${told}.`
    throw new NotAsked([{ sentence, from: expr.from, to: expr.to }])
  }
}

/** A stored answer as a value of SQL; what is of another shape is blank, as it is to the engine. */
function answerAs(kind: Kind, json: SQL): SQL {
  const type = sql`jsonb_typeof(${json})`
  const plain = sql`(${json} #>> '{}')`
  if (kind === 'boolean') return sql`(case when ${type} = 'boolean' then ${plain}::boolean end)`
  if (kind === 'text')
    // A choice in one’s own words is chosen under the code “other”.
    return sql`((case when ${type} = 'string' then ${plain} when ${type} = 'object' and jsonb_exists(${json}, 'other') then 'other' end) collate "C")`
  if (kind === 'number')
    return sql`(case when ${type} = 'number' then ${plain}::numeric when ${type} = 'string' and ${plain} ~ ${NUMBER} then ${plain}::numeric when ${type} = 'object' and ${json} ->> 'amount' ~ ${NUMBER} then (${json} ->> 'amount')::numeric end)`
  // Codes by themselves; who writes one in chooses “other”.
  return sql`(case when ${type} = 'array' and jsonb_array_length(${json}) > 0 then (select jsonb_agg(case when jsonb_typeof(item) = 'object' then '"other"'::jsonb else item end) from jsonb_array_elements(${json}) as item) end)`
}
