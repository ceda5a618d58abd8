import fc from 'fast-check'

/**
 * A property that is not through in a test's time has failed; the search for a smaller counterexample, which nothing else can end, stops then too.
 * An hour with more forms than usual (`PROVE_FORMS`).
 */
const LIMIT = process.env.PROVE_FORMS === undefined ? 280_000 : 3_500_000

fc.configureGlobal({ interruptAfterTimeLimit: LIMIT, markInterruptAsFailure: true })
