import { sweep } from '../services/sweep'
import { database } from '../store/current'
import { describeForLog } from '../store/storeErrors'

/** Milliseconds between one tidying up and the next, and until the first. */
const EVERY = 3_600_000
const FIRST = 30_000

export default defineNitroPlugin(nitro => {
  const run = async () => {
    try {
      await sweep(await database())
    } catch (error) {
      console.error(`Tidying up failed; it is tried again in an hour. ${describeForLog(error)}`)
    }
  }
  const first = setTimeout(() => void run(), FIRST)
  const again = setInterval(() => void run(), EVERY)
  nitro.hooks.hook('close', () => {
    clearTimeout(first)
    clearInterval(again)
  })
})
