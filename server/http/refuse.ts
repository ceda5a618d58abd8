import type { Refusal } from '../../shared/api/refusal'

/** A refusal for people: turned into the one shape of error that every route answers with. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly refusal: Refusal,
  ) {
    super(refusal.sentence)
    this.name = 'Refused'
  }
}

/** Throws a refusal. */
export function refuse(
  status: number,
  code: string,
  sentence: string,
  problems?: Refusal['problems'],
): never {
  throw new Refused(status, { code, sentence, problems })
}
