/** The destination of a route that ends the form. */
export const FINISH = 'finish'
