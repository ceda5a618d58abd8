import { eq, sql } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Secret, TOTP } from 'otpauth'
import { fresh, openTestStore, refusalOf, type TestStore } from '../../testing/testStore'
import { formRights, messages, oneTimeKeys, record, sessions, users } from '../../store/schema'
import { createForm, listForms } from '../drafts'
import { confirmOwn, setSecondFactor } from './account'
import { choosePassword, openKey } from './oneTimeKeys'
import { changePerson, handOverForms, invitePerson, listPeople, loadUser } from './people'
import { beginSecondFactor } from './secondFactor'
import { beginSession, endSessions, findCaller, listSessions } from './sessions'
import { makeSetUpCode, setUp } from './setUp'
import { shareForm } from './sharing'
import { forgetPassword, signIn } from './signIn'
import { ALLOWANCES } from './tallies'
import { deleteTeam, saveTeam } from './teams'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 60_000)
afterAll(() => store.end())

const SEAL = 'a secret of the server that is long enough'
const FROM = { source: '192.0.2.1', agent: 'test' }
const PASSWORD = 'a long enough password'

/** Somebody who has joined. */
async function join(role: 'member' | 'maker' | 'admin' = 'maker') {
  const email = `${fresh('p')}@wherry.example`
  const { link } = await invitePerson(store.db, { name: email, email, role }, 'Ines')
  const key = link.replace('/key/', '')
  const { user } = await choosePassword(store.db, key, PASSWORD)
  return { ...user, key }
}
const enter = (email: string, password: string, code?: string, source = fresh('source')) =>
  signIn(store.db, { email, password, code }, source, SEAL)

describe('sessions', () => {
  it('end at once when they are ended, after 12 hours without use, and after 14 days in any case', async () => {
    const { db } = store
    const { id } = await join()
    const set = (token: string, column: 'seen_at' | 'opened_at', hours: number) =>
      db.execute(
        sql`update sessions set ${sql.raw(column)} = now() - make_interval(mins => ${Math.round(hours * 60)}) where token_hash in (select token_hash from sessions where user_id = ${id}) and ${token} <> ''`,
      )
    const token = await beginSession(db, id, FROM)
    expect((await findCaller(db, token))?.id).toBe(id)
    await set(token, 'seen_at', 11.9)
    expect(await findCaller(db, token)).not.toBeNull()
    await set(token, 'seen_at', 12.1)
    expect(await findCaller(db, token)).toBeNull()
    await set(token, 'seen_at', 0)
    await set(token, 'opened_at', 14 * 24 + 0.1)
    expect(await findCaller(db, token)).toBeNull()
    const other = await beginSession(db, id, FROM)
    await endSessions(db, id)
    expect(await findCaller(db, other)).toBeNull()
  })

  it('of somebody suspended are over, and tokens are not in the store', async () => {
    const { db } = store
    const { id } = await join()
    const token = await beginSession(db, id, FROM)
    const caller = await findCaller(db, token)
    if (!caller) throw new Error('No session.')
    expect(await listSessions(db, caller)).toHaveLength(1)
    expect(JSON.stringify(await db.select().from(sessions))).not.toContain(token)
    await changePerson(db, id, { isSuspended: true })
    expect(await findCaller(db, token)).toBeNull()
    await changePerson(db, id, { isSuspended: false })
    expect(await findCaller(db, token)).toBeNull()
  })
})

describe('keys', () => {
  it('open once, for their time, and not beside a newer one', async () => {
    const { db } = store
    const { key, email, id } = await join()
    expect((await refusalOf(openKey(db, key))).status).toBe(404)
    await forgetPassword(db, email, fresh('source'))
    await forgetPassword(db, email, fresh('source'))
    const letters = await db.select().from(messages).where(eq(messages.to, email))
    const keys = letters.flatMap(l => /\/key\/([\w-]+)/.exec(l.text)?.[1] ?? [])
    expect(keys).toHaveLength(3)
    const usable = await Promise.all(
      keys.map(k =>
        openKey(db, k).then(
          () => 1,
          () => 0,
        ),
      ),
    )
    expect(usable.reduce<number>((a, b) => a + b, 0)).toBe(1)
    const newest = keys[usable.indexOf(1)] ?? ''
    const token = await beginSession(db, id, FROM)
    const tries = await Promise.allSettled([1, 2, 3].map(n => choosePassword(db, newest, `${PASSWORD} ${n}`)))
    expect(tries.filter(t => t.status === 'fulfilled')).toHaveLength(1)
    expect(await findCaller(db, token)).toBeNull()
    await forgetPassword(db, email, fresh('source'))
    await db.update(oneTimeKeys).set({ expiresAt: new Date(Date.now() - 1_000) })
    const late = (await db.select().from(messages).where(eq(messages.to, email))).flatMap(
      l => /\/key\/([\w-]+)/.exec(l.text)?.[1] ?? [],
    )
    for (const k of late) expect((await refusalOf(openKey(db, k))).status).toBe(404)
  })
})

describe('signing in', () => {
  it('is refused in the same words for whoever is not there, and after too many tries with the time to wait', async () => {
    const { email } = await join()
    const wrong = await refusalOf(enter(email, 'wrong'))
    expect(await refusalOf(enter(`${fresh('nobody')}@wherry.example`, 'wrong'))).toEqual(wrong)
    for (let n = 2; n <= ALLOWANCES.signInByAddress.most; n++) await refusalOf(enter(email, 'wrong'))
    expect(await refusalOf(enter(email, PASSWORD))).toMatchObject({ status: 429, code: 'too-often' })
    await expect(enter(email, PASSWORD)).rejects.toThrow(/Try again in 1[45] minutes/)
    await store.db.execute(sql`update tallies set since = now() - interval '16 minutes'`)
    expect((await enter(email, PASSWORD)).email).toBe(email)
  })

  it('counts tries from one source over all addresses, also side by side', async () => {
    const source = fresh('source')
    const tries = Array.from({ length: ALLOWANCES.signInBySource.most + 8 }, () =>
      refusalOf(enter(`${fresh('nobody')}@wherry.example`, 'wrong', undefined, source)),
    )
    const codes = (await Promise.all(tries)).map(t => t.code)
    expect(codes.filter(c => c === 'too-often')).toHaveLength(8)
  })

  it('with a second factor asks for a code, which counts once', async () => {
    const { db } = store
    const user = await join()
    const { secret } = await beginSecondFactor(db, user, SEAL)
    const caller = { ...user, sessionId: user.id }
    const codeAt = (timestamp: number) =>
      new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({ timestamp })
    const now = Date.now()
    expect((await enter(user.email, PASSWORD)).id).toBe(user.id)
    expect((await refusalOf(setSecondFactor(db, caller, '000000', SEAL))).code).toBe('wrong-code')
    await setSecondFactor(db, caller, codeAt(now - 30_000), SEAL)
    // One that counts is not switched off by beginning another.
    expect((await refusalOf(beginSecondFactor(db, user, SEAL))).code).toBe('factor-set')
    expect((await refusalOf(enter(user.email, PASSWORD))).code).toBe('code-needed')
    expect((await refusalOf(enter(user.email, PASSWORD, codeAt(now - 30_000)))).code).toBe('wrong-code')
    expect((await enter(user.email, PASSWORD, codeAt(now + 1_000))).id).toBe(user.id)
    expect((await refusalOf(enter(user.email, PASSWORD, codeAt(now + 1_000)))).code).toBe('wrong-code')
    expect(JSON.stringify(await db.select().from(users))).not.toContain(secret)
    expect((await refusalOf(confirmOwn(db, caller, 'wrong'))).code).toBe('wrong-password')
  })

  it('leaves a line in the record without what was typed', async () => {
    const typed = fresh('typed')
    await refusalOf(enter(`${typed}@wherry.example`, typed))
    const lines = await store.db.select().from(record)
    expect(lines.map(l => l.act)).toContain('sign-in refused')
    expect(JSON.stringify(lines)).not.toContain(typed)
  })
})

describe('who is left', () => {
  it('there is always an admin, and an owner of each form who can sign in', async () => {
    const { db, designer } = store
    const heir = await join()
    expect((await refusalOf(changePerson(db, designer.id, { role: 'maker' }))).code).toBe('last-admin')
    const { id: form } = await createForm(db, { title: 'Crane log' }, heir.id)
    expect((await refusalOf(changePerson(db, heir.id, { isSuspended: true }))).code).toBe('owns-alone')
    const holder = { kind: 'person' as const, id: heir.id }
    expect((await refusalOf(shareForm(db, form, { holder, rights: ['design'] }))).code).toBe('no-owner')
    const team = await saveTeam(db, null, { name: fresh('team'), members: [designer.id] })
    await shareForm(db, form, { holder: { kind: 'team', id: team.id }, rights: ['own'] })
    await shareForm(db, form, { holder, rights: [] })
    expect((await refusalOf(deleteTeam(db, team.id))).code).toBe('no-owner')
    const emptied = saveTeam(db, team.id, { name: fresh('team'), members: [] })
    expect((await refusalOf(emptied)).code).toBe('no-owner')
    expect((await listForms(db, designer.id)).map(f => f.id)).toContain(form)
    await handOverForms(db, designer.id, heir.id)
    await deleteTeam(db, team.id)
    expect((await listPeople(db)).find(p => p.id === heir.id)?.ownsAlone).toBeGreaterThan(0)
    expect((await loadUser(db, heir.id)).suspendedAt).toBeNull()
  })

  it('an empty workspace is set up once, by the code that was printed last', async () => {
    const { db } = store
    expect(await makeSetUpCode(db)).toBeNull()
    await db
      .transaction(async tx => {
        await tx.delete(formRights)
        await tx.execute(sql`truncate users cascade`)
        const first = await makeSetUpCode(tx)
        const second = await makeSetUpCode(tx)
        const own = { name: 'Ines', email: 'ines@wherry.example', password: PASSWORD }
        expect((await refusalOf(setUp(tx, { code: first ?? '', ...own }))).code).toBe('wrong-code')
        const typed = (second ?? '').toLowerCase().replaceAll('-', ' ')
        expect((await setUp(tx, { code: typed, ...own })).role).toBe('admin')
        expect((await refusalOf(setUp(tx, { code: typed, ...own }))).status).toBe(404)
        throw new Error('back')
      })
      .catch((error: unknown) => expect(String(error)).toContain('back'))
  })
})

describe('typed codes', () => {
  it('are read however they are typed', async () => {
    const { newTypedCode, readTypedCode } = await import('./tokens')
    fc.assert(
      fc.property(fc.constantFrom(' ', '', '-', '. '), fc.boolean(), (between, lower) => {
        const code = newTypedCode()
        const typed = code.replaceAll('-', between)
        expect(readTypedCode(lower ? typed.toLowerCase() : typed)).toBe(code)
      }),
    )
  })
})
