import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import '#core/checks/catalogue/index';
import '#core/checks/engine/judge';
import { englishMessages, formatMessage } from '#core/text/messages';

/** The names that stand in the braces of a sentence. */
function namesIn(elements: readonly MessageFormatElement[]): string[] {
  return elements.flatMap((e) => {
    if (e.type === TYPE.argument) return [e.value];
    if (e.type === TYPE.select || e.type === TYPE.plural)
      return [e.value, ...Object.values(e.options).flatMap((o) => namesIn(o.value))];
    return [];
  });
}

const namesOf = (text: string): string[] => [...new Set(namesIn(parse(text, { ignoreTag: true })))].sort();

describe('messages', () => {
  const all = [...englishMessages()];

  it('are well-formed, and a code is its owner and a name', () => {
    expect(all.length).toBeGreaterThan(400);
    for (const [code, text] of all) {
      expect(() => namesOf(text), code).not.toThrow();
      expect(code).toMatch(/^[a-z][a-z.-]*\/[a-z0-9][a-z0-9 -]*$/i);
      expect(text, code).not.toBe('');
    }
  });

  it('are given all that stands in their braces, wherever they are said', () => {
    const lacking: string[] = [];
    for (const file of readdirSync('core', { recursive: true, encoding: 'utf8' })) {
      if (!file.endsWith('.ts') || file.endsWith('.test.ts')) continue;
      lacking.push(...lackingIn(join('core', file)));
    }
    expect(lacking).toEqual([]);
  });

  it('show foreign text as it came', () => {
    expect(formatMessage({ code: 'kit/not-wanted', data: { reason: '<b>{x}</b> ’#' } })).toBe(
      'not wanted: <b>{x}</b> ’#',
    );
  });

  it('a code that is known no more is shown itself', () => {
    expect(formatMessage({ code: 'gone/for-good', data: { n: 1 } })).toBe('gone/for-good');
  });
});

/** Sentences that a file says without all of their data, or that it does not declare. */
function lackingIn(path: string): string[] {
  const text = readFileSync(path, 'utf8');
  if (!/\bdefineMessages\(|commonMessage\(/.test(text)) return [];
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const owners = new Map<string, string>([['commonMessage', 'kit']]);
  const out: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isVariableDeclaration(node) && node.initializer && ts.isCallExpression(node.initializer)) {
      const [owner] = node.initializer.arguments;
      if (node.initializer.expression.getText() === 'defineMessages' && owner && ts.isStringLiteral(owner))
        owners.set(node.name.getText(), owner.text);
    }
    if (ts.isCallExpression(node)) out.push(...lackingOf(node, owners, path));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return out;
}

function lackingOf(call: ts.CallExpression, owners: ReadonlyMap<string, string>, path: string): string[] {
  const owner = owners.get(call.expression.getText());
  const [code, data] = call.arguments;
  if (!owner || !code || !ts.isStringLiteral(code)) return [];
  // its code alone says nothing
  if (ts.isPropertyAccessExpression(call.parent) && call.parent.name.text === 'code') return [];
  const text = englishMessages().get(`${owner}/${code.text}`);
  if (text === undefined) return [`${path}: ${owner}/${code.text} is not declared`];
  // data that are made elsewhere cannot be seen from here
  if (data && (!ts.isObjectLiteralExpression(data) || data.properties.some(ts.isSpreadAssignment))) return [];
  const given = new Set(data?.properties.map((p) => p.name!.getText()));
  return namesOf(text)
    .filter((name) => !given.has(name))
    .map((name) => `${path}: ${owner}/${code.text} without ${name}`);
}
