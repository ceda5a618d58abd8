/** Milliseconds without a further answer after which what was typed is kept on the server. */
const SETTLE = 1500

/** Does something once nothing more comes, one after the other; what was stopped meanwhile is not followed up. */
export function useSettling() {
  let timer: ReturnType<typeof setTimeout> | undefined
  let busy: Promise<void> = Promise.resolve()
  let isStopped = false
  function stop() {
    isStopped = true
    clearTimeout(timer)
  }
  function later(run: () => Promise<void>, afterwards: () => void) {
    stop()
    isStopped = false
    timer = setTimeout(() => {
      busy = busy.then(run).then(() => (isStopped ? undefined : afterwards()))
    }, SETTLE)
  }
  onBeforeUnmount(stop)
  return { later, stop }
}
