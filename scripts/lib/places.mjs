// Where a Corvit keeps its things, as the server says it (server/utils/place.ts).
import { dirname, join, resolve } from 'node:path'
import { ROOT } from '../setup.mjs'

const own =
  process.env.CORVIT_DATA ??
  (process.env.CORVIT_DB ? dirname(process.env.CORVIT_DB) : join(ROOT, 'data'))
export const dataFolder = resolve(own)
export const databaseFile = process.env.CORVIT_DB ?? join(dataFolder, 'corvit.db')
export const photoFolder = process.env.CORVIT_PHOTOS ?? join(dataFolder, 'photos')
