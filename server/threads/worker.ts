import { bringPatternEngine } from '../../core/expressions/patternEngine'
import { TASKS, type Inputs, type Results, type TaskName } from './tasks'

bringPatternEngine()

/** What a worker thread does: one of the tasks. */
const work = <N extends TaskName>({
  name,
  input,
}: {
  name: N
  input: Inputs[N]
}): Results[N] | Promise<Results[N]> => TASKS[name](input)
export default work
