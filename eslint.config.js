import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

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
    prettier,
);
