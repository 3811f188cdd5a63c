import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Fonts } from './render'

const { resolve } = createRequire(import.meta.url)
const font = (name: string) =>
  readFileSync(
    resolve(
      `@expo-google-fonts/atkinson-hyperlegible-next/${name}/AtkinsonHyperlegibleNext_${name}.ttf`,
    ),
  )
/** The type of papers, from the package it comes in; the server carries it in its own file. */
export const readType = (): Fonts => ({ regular: font('400Regular'), bold: font('700Bold') })
