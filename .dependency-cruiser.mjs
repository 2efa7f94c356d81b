/** What may import what inside the rooms; what one room may import of another is in eslint.config.mjs. */
import { SUBJECTS } from './scripts/import-rules.mjs';

const CHECKS = '^core/checks';
const SECTION = `${CHECKS}/catalogue/([^/]+)/`;

/** The layers of the checks, the lowest first: each may import itself and those before it. */
const LAYERS = ['view', 'kit', 'catalogue', 'engine'];
const layerRules = LAYERS.slice(0, -1).map((layer, i) => ({
  name: `checks-${layer}-looks-down`,
  comment: `core/checks/${layer} may import only ${LAYERS.slice(0, i + 1).join(', ')}.`,
  severity: 'error',
  from: { path: `${CHECKS}/${layer}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `${CHECKS}/(?:${LAYERS.slice(i + 1).join('|')})/` },
}));

const OPEN = ['platform', 'reads'];
const subjectRules = [...SUBJECTS].flatMap(([subject, allowed]) => [
  {
    name: `${subject}-looks-down`,
    comment: `server/${subject} may import only ${[...allowed].join(', ')} (CONTRIBUTING.md).`,
    severity: 'error',
    from: { path: `^server/${subject}/`, pathNot: '\\.test\\.ts$' },
    to: { path: '^server/[^/]+/', pathNot: `^server/(?:${[...allowed].join('|')})/` },
  },
  ...(OPEN.includes(subject)
    ? []
    : [
        {
          name: `${subject}-has-one-entry`,
          comment: `Others import server/${subject} only through its index.ts.`,
          severity: 'error',
          from: { path: '^server/', pathNot: `^server/${subject}/|\\.test\\.ts$` },
          to: { path: `^server/${subject}/`, pathNot: `^server/${subject}/index\\.ts$` },
        },
      ]),
]);

export default {
  forbidden: [
    {
      name: 'no-circles',
      comment: 'Files that import each other cannot be read one after the other.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'sections-stand-alone',
      comment: 'What two sections of the catalogue need belongs in core/checks/kit or view.',
      severity: 'error',
      from: { path: SECTION, pathNot: '\\.test\\.ts$' },
      to: { path: SECTION, pathNot: `${CHECKS}/catalogue/$1/` },
    },
    ...layerRules,
    ...subjectRules,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(?:\\.nuxt|\\.output)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.scripts.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'node'] },
  },
};
