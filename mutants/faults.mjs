/* Lists every fault that the page's files can have, as JSON; by TypeScript's own parser. */
import { createRequire } from 'node:module'
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'

const root = process.argv[2]
const ts = createRequire(join(root, 'web', 'package.json'))('typescript')
const K = ts.SyntaxKind
const turned = new Map([
  [K.LessThanToken, '<='], [K.LessThanEqualsToken, '<'], [K.GreaterThanToken, '>='], [K.GreaterThanEqualsToken, '>'],
  [K.EqualsEqualsEqualsToken, '!=='], [K.ExclamationEqualsEqualsToken, '==='], [K.AmpersandAmpersandToken, '||'], [K.BarBarToken, '&&'],
  [K.PlusToken, '-'], [K.MinusToken, '+'], [K.AsteriskToken, '/'], [K.SlashToken, '*'], [K.PercentToken, '/'],
]) // prettier-ignore
const all = []

function listed(file, text, offset) {
  const tree = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true)
  const says = (n) => ts.isStringLiteralLike(n) || ts.isTemplateExpression(n) || ts.forEachChild(n, says) === true
  const add = (node, from, to, put, func) =>
    all.push({ File: relative(root, file), Line: tree.getLineAndCharacterOfPosition(from).line + 1, From: Buffer.byteLength(text.slice(0, from)) + offset, To: Buffer.byteLength(text.slice(0, to)) + offset, Text: put, Was: text.slice(from, to), Func: func }) // prettier-ignore
  function visit(n, func) {
    if ((ts.isFunctionDeclaration(n) || ts.isMethodDeclaration(n) || ts.isVariableDeclaration(n)) && n.name && ts.isIdentifier(n.name)) func = n.name.text // prettier-ignore
    if (ts.isTypeNode(n) || ts.isImportDeclaration(n)) return
    if (ts.isBinaryExpression(n)) {
      const put = turned.get(n.operatorToken.kind)
      if (put && !(n.operatorToken.kind === K.PlusToken && says(n))) add(n, n.operatorToken.getStart(), n.operatorToken.end, put, func) // prettier-ignore
      if (n.operatorToken.kind === K.PlusEqualsToken && !says(n)) add(n, n.operatorToken.getStart(), n.operatorToken.end, '-=', func) // prettier-ignore
    } else if (ts.isNumericLiteral(n) && /^\d+$/.test(n.text)) add(n, n.getStart(), n.end, String(Number(n.text) + 1), func)
    else if (ts.isIfStatement(n)) add(n, n.expression.getStart(), n.expression.end, `!(${n.expression.getText()})`, func)
    else if (ts.isConditionalExpression(n)) add(n, n.condition.getStart(), n.condition.end, `!(${n.condition.getText()})`, func) // prettier-ignore
    else if (n.kind === K.TrueKeyword || n.kind === K.FalseKeyword) add(n, n.getStart(), n.end, String(n.kind === K.FalseKeyword), func) // prettier-ignore
    else if (ts.isExpressionStatement(n) && ts.isCallExpression(n.expression)) add(n, n.getStart(), n.end, ';', func)
    ts.forEachChild(n, (c) => visit(c, func))
  }
  visit(tree, '-')
}

for (const f of readdirSync(join(root, 'web', 'src'), { recursive: true, withFileTypes: true })) {
  const path = join(f.parentPath, f.name)
  if (!f.isFile() || /\.test\.ts$|\.d\.ts$|storm/.test(f.name)) continue
  const text = readFileSync(path, 'utf8')
  if (f.name.endsWith('.ts')) listed(path, text, 0)
  else if (f.name.endsWith('.vue')) {
    const found = /<script setup[^>]*>\n?/.exec(text)
    if (!found) continue
    const from = found.index + found[0].length
    listed(path, text.slice(from, text.indexOf('</script>', from)), Buffer.byteLength(text.slice(0, from)))
  }
}
all.sort((a, b) => (a.File < b.File ? -1 : a.File > b.File ? 1 : a.From - b.From))
console.log(JSON.stringify(all))
