import type { H3Event } from 'h3'
import { countPasskey, findPasskey, findUser } from '../../queries/people'

interface Success {
  credential: { id: string }
  authenticationInfo: { newCounter: number }
}

/** Signs in by passkey. */
export default defineWebAuthnAuthenticateEventHandler({
  storeChallenge: keepChallenge,
  getChallenge: takeChallenge,
  async getCredential(_event: H3Event, id: string) {
    const row = await findPasskey(await useDb(), id)
    if (!row) throw refuse('wrong-password', 'This server does not know that passkey')
    return {
      id: row.id,
      publicKey: row.public_key,
      counter: row.counter,
      backedUp: false,
      transports: JSON.parse(row.transports),
    }
  },
  async onSuccess(event: H3Event, { credential, authenticationInfo }: Success) {
    const db = await useDb()
    const key = await findPasskey(db, credential.id)
    const row = key && (await findUser(db, key.user_id))
    if (!row || row.disabled_at !== null) throw refuse('wrong-password', 'This account is closed')
    await countPasskey(db, credential.id, authenticationInfo.newCounter)
    await signIn(event, row)
    event.context.asker = { id: row.id, name: row.name, role: row.role }
    await audit(event, 'signed in', 'by passkey')
  },
  onError: passkeyRefused,
})
