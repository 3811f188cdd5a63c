import { readdirSync, readFileSync } from 'node:fs'
import { FIELDS, KIND_LABEL, REMEDIES, RULES } from '#core'

/** Words that are not said to people, and what is said instead. US trade English. */
const NOT: readonly [RegExp, string][] = [
  [/alumini(?!um-at-unmarked)/i, 'aluminum'],
  [/armour/i, 'armor'],
  [/colour/i, 'color'],
  [/judgement/i, 'judgment'],
  [/\blabour/i, 'labor'],
  [/\bgrey\b/i, 'gray'],
  [/\bcentre/i, 'center'],
  [/neighbour/i, 'neighbor'],
  [/\btake[ns]? back\b/i, 'Undo'],
  [/\bbring back\b/i, 'Redo'],
  [/\bNot now\b/, 'Cancel'],
  [/\bDraw it\b/, 'Add panel'],
  [/\bshow the sum\b/i, 'show the math'],
  [/\bwanted\b/i, 'required'],
  [/\bgood for (?:\d|\{)/i, 'rated for'],
  [/\bmet by the work\b/i, 'required by this work'],
  [/\bbroken when made\b/i, 'violation when installed'],
  [/\bmay stay\b|\ballowed to stay\b/i, 'allowed to remain'],
  [/\bfor the record\b/i, 'note'],
  [/\bupgrade at next work\b/i, 'upgrade'],
  [/\bopen loops?\b/i, 'unresolved questions'],
  [/\bsettles \d/i, 'answers 5 checks'],
  [/(?<!grounding )electrode conductor/i, 'grounding electrode conductor'],
  [/\bmain bond(?!ing)\b/i, 'main bonding jumper'],
  [/\bdoubled neutral\b/i, 'two neutrals under one screw'],
  [/\bearth tester\b|\bground to earth\b/i, 'ground resistance tester, ground to reference'],
  [/\bits like\b/i, 'similar breakers'],
  [/\btugging hand\b|\bgentle tug\b/i, 'pull test'],
  [/\bpoint at nothing\b/i, 'clear selection'],
  [/\bthe desk\b|\bthis desk\b/i, 'your settings'],
  [/\bfire-rated passages?\b/i, 'penetrations'],
  [/danger \d (?:of|×)/i, 'words: why it is this severe'],
]
/** Ids are read by programs. */
const IDS = /[\w]+(?:-[\w]+){1,}|`[^`]*`/g
const said = (text: string) =>
  NOT.filter(([word]) => word.test(text)).map(([word, but]) => `${word}: say ${but}`)

/** Everything a rule, a field or a remedy says to people. */
function words(): string[] {
  const list: string[] = Object.values(KIND_LABEL)
  for (const fields of Object.values(FIELDS))
    for (const field of Object.values(fields)) {
      list.push(field.label, field.look, field.with ?? '')
      if (field.type === 'choice') list.push(...field.options.map(String))
    }
  for (const rule of RULES)
    list.push(
      rule.title,
      rule.fault,
      rule.consequence,
      ...rule.traps,
      ...Object.values(rule.checks).map(c => c.says),
    )
  for (const r of REMEDIES)
    list.push(
      r.title,
      r.gives,
      r.lacks ?? '',
      ...r.duties,
      ...r.steps,
      ...r.cautions,
      ...r.tests,
      ...r.markings,
    )
  return list
}

const SAID = /\b(?:say|na|clear|undecided)\(\s*'[^']*'/g

describe('the words of the trade', () => {
  it('are those that rules, fields and remedies say', () => {
    const wrong = words().flatMap(text => said(text.replaceAll(IDS, '')).map(w => `${text} (${w})`))
    expect(wrong).toEqual([])
  })
  it('are those of the sentences in the core', () => {
    const wrong: string[] = []
    for (const file of readdirSync('core', { recursive: true }).map(String)) {
      if (!file.endsWith('.ts') || file.endsWith('upcast.ts')) continue
      // Rules end with sentences as plain text; elsewhere they are said.
      const pattern = file.startsWith('rules/') ? /'[^'\n]* [^'\n]*'/g : SAID
      for (const [text] of readFileSync(`core/${file}`, 'utf8').matchAll(pattern))
        for (const w of said(text)) wrong.push(`${file}: ${text} (${w})`)
    }
    expect(wrong).toEqual([])
  })
  it('are those of the screens', () => {
    const wrong: string[] = []
    for (const file of readdirSync('app', { recursive: true }).map(String)) {
      if (!file.endsWith('.vue')) continue
      const text = readFileSync(`app/${file}`, 'utf8')
      const template = text.slice(text.indexOf('<template>'), text.lastIndexOf('</template>'))
      for (const w of said(template.replaceAll(IDS, ''))) wrong.push(`${file}: ${w}`)
    }
    expect(wrong).toEqual([])
  })
  it('are those of the documents', () => {
    const wrong: string[] = []
    const files = [
      'README.md',
      'CONTRIBUTING.md',
      ...readdirSync('docs')
        .filter(f => f.endsWith('.md'))
        .map(f => `docs/${f}`),
    ]
    for (const file of files) {
      readFileSync(file, 'utf8')
        .split('\n')
        .forEach((line, i) => {
          for (const w of said(line.replaceAll(/`[^`]*`/g, '').replaceAll(IDS, '')))
            wrong.push(`${file}:${i + 1} ${w}`)
        })
    }
    expect(wrong).toEqual([])
  })
})
