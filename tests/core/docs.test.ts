import { readFileSync } from 'node:fs'
import { rulesDoc, schemaDoc, fieldsDoc, calculatorsDoc } from '../../scripts/generate-docs'

it.each([
  ['RULES.md', rulesDoc],
  ['job-file.schema.json', schemaDoc],
  ['FIELDS.md', fieldsDoc],
  ['CALCULATORS.md', calculatorsDoc],
])(
  'docs/%s is what the code says; run npm run docs if not',
  (file, make) => {
    expect(readFileSync(`docs/${file}`, 'utf8').includes(make())).toBe(true)
  },
  60_000,
)
