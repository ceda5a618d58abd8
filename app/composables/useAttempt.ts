/** Something that is tried at a press, one at a time: `said` is what came of it, or why it was refused. */
export function useAttempt() {
  const busy = ref(false)
  const said = ref('')
  async function attempt(run: () => Promise<string>) {
    busy.value = true
    said.value = ''
    try {
      said.value = await run()
    } catch (error) {
      said.value = refusalOf(error).sentence
    }
    busy.value = false
  }
  return { busy, said, attempt }
}
