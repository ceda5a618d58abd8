import { createHmac } from 'node:crypto'
import { lookup } from 'node:dns/promises'
import { BlockList, isIP } from 'node:net'
import { takeHook } from '../../stand-ins/receiver'
import type { Database } from '../../store/database'

/** Milliseconds that a receiver has to answer. */
const WITHIN = 10_000

/** Names of this ending are nobody’s (RFC 2606): what goes there is taken by the receiver that ships with the application. */
const SIMULATED = '.example'

/** Addresses that are of this machine or its neighbours (RFC 1918, 4193, 6598 and others): nothing is sent there. */
const INSIDE = new BlockList()
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['224.0.0.0', 4],
] as const)
  INSIDE.addSubnet(net, bits, 'ipv4')
for (const [net, bits] of [
  ['::', 128],
  ['::1', 128],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  INSIDE.addSubnet(net, bits, 'ipv6')

/** What came of a web hook: whether it was taken, and what is to be said of it. */
export interface Posted {
  isTaken: boolean
  said: string
}

/** By what a receiver can tell that a hook comes from here: an HMAC with SHA-256 (RFC 2104) over its body, in hexadecimal digits. */
export const signatureOf = (secret: string, body: string): string =>
  `sha256=${createHmac('sha256', secret).update(body).digest('hex')}`

/** Posts JSON to an address. `key`: the same for each try of the same delivery, so that a receiver can tell what it has already. */
export async function postHook(
  db: Database,
  address: string,
  { body, secret, key }: { body: string; secret: string; key: string },
): Promise<Posted> {
  const signature = signatureOf(secret, body)
  const { hostname } = new URL(address)
  if (hostname.endsWith(SIMULATED)) return sayStatus(await takeHook(db, { address, body, signature }))
  try {
    if (await isInside(hostname))
      return { isTaken: false, said: `${hostname} is not an address of the outside world.` }
    const answer = await fetch(address, {
      method: 'POST',
      body,
      redirect: 'error',
      signal: AbortSignal.timeout(WITHIN),
      headers: {
        'content-type': 'application/json',
        'x-tobbin-signature': signature,
        'idempotency-key': key,
      },
    })
    await answer.body?.cancel()
    return sayStatus(answer.status)
  } catch (error) {
    const why = error instanceof Error ? error.message : ''
    return { isTaken: false, said: `${hostname} could not be reached: ${why}`.slice(0, LONGEST) }
  }
}
const LONGEST = 300

function sayStatus(status: number): Posted {
  if (status === 0) return { isTaken: false, said: 'There was no answer.' }
  const isTaken = status >= 200 && status < 300
  return { isTaken, said: isTaken ? `Taken (${status}).` : `Refused (${status}).` }
}

async function isInside(hostname: string): Promise<boolean> {
  const bare = hostname.replace(/^\[|\]$/g, '')
  const found = isIP(bare) ? [{ address: bare, family: isIP(bare) }] : await lookup(bare, { all: true })
  return found.some(({ address, family }) => INSIDE.check(address, family === 6 ? 'ipv6' : 'ipv4'))
}
