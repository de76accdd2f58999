import boundaries from 'eslint-plugin-boundaries';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

const is = (...types) => ({ element: { types: { anyOf: types } } });

export default defineConfig(
    { ignores: ['resources/js/api/schema.d.ts'] },
    ts.configs.strictTypeChecked,
    vue.configs['flat/recommended'],
    {
        languageOptions: {
            parserOptions: { parser: ts.parser, projectService: true, extraFileExtensions: ['.vue'] },
        },
        rules: {
            'vue/multi-word-component-names': 'off',
            '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
            // The linter cannot see into .vue files; vue-tsc checks the types that cross them.
            '@typescript-eslint/no-unsafe-assignment': 'off',
            '@typescript-eslint/no-unsafe-argument': 'off',
            '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
        },
    },
    {
        // What stands on what: pages on components, components on composables, all of it on the API; and no capability's
        // pages on those of another.
        files: ['resources/js/**'],
        plugins: { boundaries },
        settings: {
            'boundaries/include': ['resources/js/**'],
            'boundaries/elements': [
                { type: 'page', pattern: 'resources/js/pages/*', capture: ['capability'] },
                { type: 'component', pattern: 'resources/js/components' },
                { type: 'composable', pattern: 'resources/js/composables' },
                { type: 'graphic', pattern: 'resources/js/graphics' },
                { type: 'api', pattern: 'resources/js/api' },
                { type: 'words', pattern: 'resources/js/words' },
                { type: 'root', pattern: 'resources/js' },
            ],
            'import/resolver': { typescript: { project: 'tsconfig.json' } },
        },
        rules: {
            'boundaries/no-unknown-files': 'error',
            'boundaries/dependencies': [
                'error',
                {
                    default: 'disallow',
                    policies: [
                        { from: is('root'), allow: { to: is('page', 'component', 'composable', 'api', 'root') } },
                        {
                            from: is('page'),
                            allow: [
                                { to: is('component', 'composable', 'graphic', 'api', 'words') },
                                {
                                    to: {
                                        element: {
                                            type: 'page',
                                            captured: { capability: '{{ from.element.captured.capability }}' },
                                        },
                                    },
                                },
                            ],
                        },
                        // A briefing is made of the drawings of the screens that it tells of.
                        {
                            from: { element: { type: 'page', captured: { capability: 'briefings' } } },
                            allow: { to: { element: { type: 'page', captured: { capability: 'review' } } } },
                        },
                        {
                            from: is('component'),
                            allow: { to: is('component', 'composable', 'graphic', 'api', 'words') },
                        },
                        { from: is('composable'), allow: { to: is('composable', 'api', 'words') } },
                        { from: is('graphic'), allow: { to: is('graphic', 'composable', 'api', 'words') } },
                        { from: is('api', 'words'), allow: { to: is('api') } },
                    ],
                },
            ],
        },
    },
    prettier,
);
