// Prints the text of a PDF given on standard input. Jest runs no ES modules of packages, so it stands apart.
import { buffer } from 'node:stream/consumers'
import { extractText, getDocumentProxy } from 'unpdf'

const pdf = await getDocumentProxy(new Uint8Array(await buffer(process.stdin)))
const { text, totalPages } = await extractText(pdf)
process.stdout.write(JSON.stringify({ pages: text, totalPages }))
