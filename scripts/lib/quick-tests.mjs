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
const FILES = ['derive', 'engine', 'remedies', 'calculators', 'cases', 'case-neighbors'].map(
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

  /** Names of the tests of each file, once it was loaded: an error is looked for where its subject is tested. */
  const names = new Map()
  /** Tests that noticed an error in a file of the core, the last of them first: they notice the next one too. */
  const noticed = new Map()

  /**
   * @param {{ path: string, text: string } | undefined} replaced
   * @param {string} first what the tests to run before the others have in their names
   * @returns {Promise<{ failed: string | undefined, passed: number }>} the first failure, if there is one
   */
  return async function run(replaced, first = '') {
    const cache = new Map()
    const mutant = replaced && compile(replaced.path, replaced.text)
    // What the tests share is loaded once: it puts its tests where those of the file being loaded go.
    let current = []
    const globals = collector(test => current.push(test))
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
    const lists = new Map()
    const testsOf = path => {
      let list = lists.get(path)
      if (!list) {
        list = []
        lists.set(path, list)
        current = list
        load(path)
        names.set(path, new Set(list.map(t => t.name)))
      }
      return list
    }
    let passed = 0
    const done = new Set()
    const failing = async list => {
      for (const test of list) {
        if (done.has(test)) continue
        done.add(test)
        try {
          await test.run()
          passed++
        } catch {
          return test.name
        }
      }
      return undefined
    }
    const before = (replaced && noticed.get(replaced.path)) ?? []
    const isFirst = name => first !== '' && name.includes(first)
    try {
      for (const { path, name } of before) {
        const failed = await failing(testsOf(path).filter(t => t.name === name))
        if (failed) return { failed, passed }
      }
      // Where the names are known already, only the files are loaded that have one to run before the others.
      const likely = tests.filter(p => [...(names.get(p) ?? [])].some(isFirst))
      for (const wanted of [isFirst, () => true])
        for (const path of [...likely, ...tests]) {
          if (wanted === isFirst && names.has(path) && !likely.includes(path)) continue
          const failed = await failing(testsOf(path).filter(t => wanted(t.name)))
          if (!failed) continue
          if (replaced) noticed.set(replaced.path, [{ path, name: failed }, ...before].slice(0, 12))
          return { failed, passed }
        }
    } catch (error) {
      return { failed: `could not be loaded: ${error.message}`, passed }
    }
    return { failed: undefined, passed }
  }
}

/** What the tests take for jest: they are collected, and run one by one. */
function collector(add) {
  const names = []
  const within = (name, run) => {
    names.push(name)
    run()
    names.pop()
  }
  const it = (name, run) => add({ name: [...names, name].join(' › '), run })
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
