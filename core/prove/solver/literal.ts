/** Literals are non-zero integers, as in DIMACS: variable 3 is `3`, its negation `-3`. */
export type Literal = number

/** How a call of the solver ended; `limit`: neither was found within the conflicts allowed. */
export type Outcome = 'satisfiable' | 'unsatisfiable' | 'limit'
