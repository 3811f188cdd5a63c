// Prints the US school grade of a text given on standard input.
// Jest runs no ES modules of packages, so it stands apart.
import { text } from 'node:stream/consumers'
import readability from 'text-readability'

process.stdout.write(String(readability.fleschKincaidGrade(await text(process.stdin))))
