// Runs the quick unit tests in this process, with one file of the core replaced: a jest for each of two thousand
// planted errors would take a day. Modules are compiled once; only what was replaced is compiled anew.
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join, resolve } from 'node:path'
import vm from 'node:vm'
import { transformSync } from 'esbuild'

const require = createRequire(import.meta.url)
const { expect } = require('expect')

const FOLDERS = ['tests/core/rules', 'tests/core/tables', 'tests/core/conclusions']
const FILES = ['derive', 'engine', 'remedies', 'calculators', 'cases'].map(
  n => `tests/core/${n}.test.ts`,
)

const GLOBALS = [
  'describe',
  'it',
  'test',
  'expect',
  'beforeAll',
  'afterAll',
  'beforeEach',
  'afterEach',
]

/** @param {string} root */
export function quickTests(root) {
  const tests = [
    ...FOLDERS.flatMap(f =>
      readdirSync(join(root, f))
        .filter(n => n.endsWith('.test.ts'))
        .map(n => `${f}/${n}`),
    ),
    ...FILES,
  ].map(f => join(root, f))
  const scripts = new Map()
  const compile = (path, text) => {
    const { code } = transformSync(text, { loader: 'ts', format: 'cjs', target: 'node20' })
    const names = ['exports', 'require', 'module', ...GLOBALS].join(', ')
    return new vm.Script(`(function (${names}) {\n${code}\n})`, { filename: path })
  }
  const scriptOf = path => {
    let script = scripts.get(path)
    if (!script) scripts.set(path, (script = compile(path, readFileSync(path, 'utf8'))))
    return script
  }
  const found = new Map()
  const fileOf = (from, name) => {
    const key = `${dirname(from)} ${name}`
    if (found.has(key)) return found.get(key)
    const base =
      name === '#core'
        ? join(root, 'core', 'index')
        : name.startsWith('#core/')
          ? join(root, 'core', name.slice(6))
          : name.startsWith('#shared/')
            ? join(root, 'shared', name.slice(8))
            : name.startsWith('.')
              ? resolve(dirname(from), name)
              : undefined
    const path = base && [`${base}.ts`, `${base}/index.ts`, base].find(p => isFile(p))
    found.set(key, path)
    return path
  }

  /**
   * @param {{ path: string, text: string } | undefined} replaced
   * @param {string} first what the tests to run before the others have in their names
   * @returns {Promise<{ failed: string | undefined, passed: number }>} the first failure, if there is one
   */
  return async function run(replaced, first = '') {
    const cache = new Map()
    const list = []
    const globals = collector(list)
    const mutant = replaced && compile(replaced.path, replaced.text)
    const load = path => {
      const before = cache.get(path)
      if (before) return before.exports
      const module = { exports: {} }
      cache.set(path, module)
      const script = replaced?.path === path ? mutant : scriptOf(path)
      const need = name => {
        const own = fileOf(path, name)
        return own ? load(own) : require(name)
      }
      script.runInThisContext()(module.exports, need, module, ...GLOBALS.map(name => globals[name]))
      return module.exports
    }
    try {
      for (const path of tests) load(path)
    } catch (error) {
      return { failed: `could not be loaded: ${error.message}`, passed: 0 }
    }
    const isFirst = t => first !== '' && t.name.includes(first)
    let passed = 0
    for (const test of [...list.filter(isFirst), ...list.filter(t => !isFirst(t))]) {
      try {
        await test.run()
        passed++
      } catch {
        return { failed: test.name, passed }
      }
    }
    return { failed: undefined, passed }
  }
}

/** What the tests take for jest: they are collected, and run one by one. */
function collector(list) {
  const names = []
  const within = (name, run) => {
    names.push(name)
    run()
    names.pop()
  }
  const it = (name, run) => list.push({ name: [...names, name].join(' › '), run })
  const each = make => rows => (name, run) => {
    for (const row of rows) {
      const args = Array.isArray(row) ? row : [row]
      make(`${name} ${typeof args[0] === 'string' ? args[0] : ''}`, () => run(...args))
    }
  }
  const describe = (name, run) => within(name, run)
  it.each = each(it)
  describe.each = each(describe)
  const nothing = () => undefined
  return {
    describe,
    it,
    test: it,
    expect,
    beforeAll: nothing,
    afterAll: nothing,
    beforeEach: nothing,
    afterEach: nothing,
  }
}

function isFile(path) {
  try {
    return statSync(path).isFile()
  } catch {
    return false
  }
}
