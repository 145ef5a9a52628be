import ts from 'typescript'

/** One change of a source that its tests should notice. */
export interface Mutant {
  readonly file: string
  readonly line: number
  /** The old and the new text. */
  readonly before: string
  readonly after: string
  readonly source: string
}

const operators = new Map<ts.SyntaxKind, string>([
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
  [ts.SyntaxKind.LessThanToken, '>='],
  [ts.SyntaxKind.GreaterThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '>'],
  [ts.SyntaxKind.GreaterThanEqualsToken, '<'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
])
const otherFunction = new Map([
  ['Math.min', 'Math.max'],
  ['Math.max', 'Math.min'],
])
/** A number is changed by so much: less would lie within many a tolerance. */
const factor = 1.25

/** The change of one node: the range to replace and the new text; null if the node is not changed. */
function changeOf(
  node: ts.Node,
  file: ts.SourceFile,
): readonly [start: number, end: number, text: string] | null {
  if (ts.isNumericLiteral(node)) {
    const value = Number(node.text)
    return [node.getStart(file), node.end, value === 0 ? '1' : String(value * factor)]
  }
  if (ts.isBinaryExpression(node)) {
    const { operatorToken } = node
    const other = operators.get(operatorToken.kind)
    return other === undefined ? null : [operatorToken.getStart(file), operatorToken.end, other]
  }
  if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
    return [node.getStart(file), node.operand.getStart(file), '']
  if (ts.isPropertyAccessExpression(node)) {
    const other = otherFunction.get(node.getText(file))
    return other === undefined ? null : [node.getStart(file), node.end, other]
  }
  if (ts.isConditionalExpression(node)) {
    const { whenTrue, whenFalse } = node
    const text = `${whenFalse.getText(file)} : ${whenTrue.getText(file)}`
    return [whenTrue.getStart(file), whenFalse.end, text]
  }
  return null
}

/** Nodes that hold no behaviour: types and imports. */
const isPlain = (node: ts.Node): boolean =>
  ts.isTypeNode(node) ||
  ts.isInterfaceDeclaration(node) ||
  ts.isTypeAliasDeclaration(node) ||
  ts.isImportDeclaration(node)

/** Every mutant of a source. */
export function mutantsOf(file: string, source: string): Mutant[] {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.ES2022, true)
  const found: Mutant[] = []
  const visit = (node: ts.Node): void => {
    if (isPlain(node)) return
    const change = changeOf(node, tree)
    if (change) {
      const [start, end, text] = change
      found.push({
        file,
        line: tree.getLineAndCharacterOfPosition(start).line + 1,
        before: source.slice(start, end),
        after: text,
        source: source.slice(0, start) + text + source.slice(end),
      })
    }
    node.forEachChild(visit)
  }
  visit(tree)
  return found
}
