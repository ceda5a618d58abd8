/** A piece of thread that runs through one row of the script. */
export interface Strand {
  lane: number
  part: 'gate' | 'end' | 'pass'
  above: boolean
  below: boolean
  lit: boolean
}
