// Finds the places in the core where one error can be planted, and plants it.
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import ts from 'typescript'

const FOLDERS = ['core/tables', 'core/rules', 'core/derive', 'core/engine', 'core/conclusions']
/** Tables of sizes are of texts; the next size is as wrong as the next number. */
const SIZES = [
  '14',
  '12',
  '10',
  '8',
  '6',
  '4',
  '3',
  '2',
  '1',
  '1/0',
  '2/0',
  '3/0',
  '4/0',
  '250',
  '300',
  '350',
]
const TURNED = {
  [ts.SyntaxKind.LessThanToken]: '<=',
  [ts.SyntaxKind.LessThanEqualsToken]: '<',
  [ts.SyntaxKind.GreaterThanToken]: '>=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '>',
}
const ANSWERS = /^c\.(clear|na|undecided|mayStay|fault|fails|faultUnless)$/

/**
 * Every error that can be planted: file, place, what stands there and what is put instead.
 * @param {string} root
 */
export function mutantsIn(root) {
  const mutants = []
  for (const folder of FOLDERS) {
    for (const name of readdirSync(join(root, folder), { recursive: true }).map(String).sort()) {
      if (!name.endsWith('.ts') || name === 'index.ts') continue
      mutants.push(...mutantsOf(root, join(root, folder, name)))
    }
  }
  return mutants
}

function mutantsOf(root, path) {
  const text = readFileSync(path, 'utf8')
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true)
  const file = relative(root, path)
  const found = []
  const plant = (kind, node, instead) => {
    const start = node.getStart(source)
    const { line } = source.getLineAndCharacterOfPosition(start)
    const before = text.slice(start, node.getEnd())
    found.push({ kind, file, line: line + 1, start, end: node.getEnd(), before, instead })
  }
  const visit = node => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node)) return
    // The key of a memory says nothing about houses: any number that keeps keys apart will do.
    if (ts.isFunctionDeclaration(node) && node.name?.text === 'keyOf') return
    if (ts.isNumericLiteral(node) && !isPlumbing(node)) plant('number', node, wrong(node.text))
    if (
      ts.isStringLiteral(node) &&
      file.startsWith('core/tables') &&
      SIZES.includes(node.text) &&
      isEntry(node)
    )
      plant('size', node, `'${SIZES[(SIZES.indexOf(node.text) + 1) % SIZES.length]}'`)
    if (ts.isBinaryExpression(node) && TURNED[node.operatorToken.kind] && !isLoop(node))
      plant('comparison', node.operatorToken, TURNED[node.operatorToken.kind])
    if (
      ts.isIfStatement(node) &&
      file.startsWith('core/rules') &&
      answers(node.thenStatement, source)
    )
      plant('check or exception left out', node.expression, 'false')
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found
}

/** An entry of a table, not a key or a type. */
const isEntry = node =>
  ts.isArrayLiteralExpression(node.parent) || ts.isPropertyAssignment(node.parent)
const wrong = text => (text.includes('.') ? String(Number(text) * 1.1) : String(Number(text) + 1))

/** Positions in lists, arguments of slice and rounding by ten: how the code is written, not what it knows. */
function isPlumbing(node) {
  const { parent } = node
  if (ts.isElementAccessExpression(parent)) return true
  if (ts.isPrefixUnaryExpression(parent) && ts.isCallExpression(parent.parent)) return true
  if (
    ts.isCallExpression(parent) &&
    /(slice|at|flat|toFixed|padStart|from|fill)$/.test(parent.expression.getText())
  )
    return true
  // A list that is empty or not, a count that begins at nothing.
  if (node.text === '0' || node.text === '1') {
    if (ts.isBinaryExpression(parent) && /\.length$/.test(parent.left.getText())) return true
    if (ts.isVariableDeclaration(parent) && !/^[A-Z_0-9]+$/.test(parent.name.getText())) return true
    if (ts.isCallExpression(parent) && /reduce$/.test(parent.expression.getText())) return true
  }
  if (ts.isBinaryExpression(parent) && /Math\.round/.test(parent.parent?.getText() ?? ''))
    return true
  // A length a list of facts is kept at: memory, not judgment.
  return ts.isVariableDeclaration(parent) && /^(PAPER|SHEET|KEPT|MAX_)/.test(parent.name.getText())
}
const isLoop = node => ts.isForStatement(node.parent)

function answers(statement, source) {
  let found = false
  const look = node => {
    if (ts.isCallExpression(node) && ANSWERS.test(node.expression.getText(source))) found = true
    if (!found) ts.forEachChild(node, look)
  }
  look(statement)
  return found
}

/** The text of the mutant's file with the error in place. */
export function planted(root, { file, start, end, instead }) {
  const text = readFileSync(join(root, file), 'utf8')
  return text.slice(0, start) + instead + text.slice(end)
}
