import { describe, expect, it } from 'vitest';
import { jsonTree, type JsonNode } from './json-tree';

const count = (nodes: readonly JsonNode[]): number =>
  nodes.reduce((n, node) => n + 1 + count(node.children ?? []), 0);

describe('structured data as a tree', () => {
  it('objects by their types, lists by their lengths, values as they stand', () => {
    expect(
      jsonTree({
        '@type': 'Museum',
        name: 'A "loft"',
        open: [{ '@type': ['A', 'B'], n: 3 }],
        none: null,
        empty: {},
      }),
    ).toEqual([
      { path: '@type', key: '@type', value: '"Museum"' },
      { path: 'name', key: 'name', value: '"A \\"loft\\""' },
      {
        path: 'open',
        key: 'open',
        kind: 'list of 1',
        children: [
          {
            path: 'open/0',
            key: '0',
            kind: 'A, B',
            children: [
              {
                path: 'open/0/@type',
                key: '@type',
                kind: 'list of 2',
                children: [
                  { path: 'open/0/@type/0', key: '0', value: '"A"' },
                  { path: 'open/0/@type/1', key: '1', value: '"B"' },
                ],
              },
              { path: 'open/0/n', key: 'n', value: '3' },
            ],
          },
        ],
      },
      { path: 'none', key: 'none', value: 'null' },
      { path: 'empty', key: 'empty', kind: 'object' },
    ]);
  });
  it.each([
    ['a text', '"x"'],
    ['a number', '5'],
    ['nothing', 'null'],
  ])('%s alone', (_, json) => {
    expect(jsonTree(JSON.parse(json))).toEqual([{ path: '', key: '', value: json }]);
  });
  it('is bounded, however much there is and however deep', () => {
    expect(count(jsonTree(Array.from({ length: 100_000 }, (_, i) => i)))).toBe(2000);
    let deep: unknown = 1;
    for (let i = 0; i < 5000; i++) deep = [deep];
    expect(count(jsonTree(deep))).toBeLessThan(50);
  });
});
