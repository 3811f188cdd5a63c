import type { H3Event } from 'h3'
import { addPasskey, findUser, passkeysOf } from '../../queries/people'

interface Success {
  credential: { id: string; publicKey: string; counter: number; transports?: string[] }
}

/** A passkey for whoever is signed in. */
export default defineWebAuthnRegisterEventHandler({
  async validateUser(_given: unknown, event: H3Event) {
    const row = await findUser(await useDb(), requireAsker(event).id ?? '')
    if (!row) throw refuse('not-demo', 'A demo has no accounts')
    return { userName: row.login, displayName: row.name }
  },
  getOptions: () => ({
    rpName: 'Corvit',
    authenticatorSelection: { residentKey: 'required', userVerification: 'preferred' },
  }),
  excludeCredentials: async (event: H3Event) => {
    const rows = await passkeysOf(await useDb(), requireAsker(event).id ?? '')
    return rows.map(r => ({ id: r.id, transports: JSON.parse(r.transports) }))
  },
  storeChallenge: keepChallenge,
  getChallenge: takeChallenge,
  async onSuccess(event: H3Event, { credential }: Success) {
    await addPasskey(await useDb(), {
      id: credential.id,
      user_id: requireAsker(event).id!,
      public_key: credential.publicKey,
      counter: credential.counter,
      transports: JSON.stringify(credential.transports ?? []),
      created_at: new Date().toISOString(),
    })
    await audit(event, 'passkey added')
  },
  onError: passkeyRefused,
})
