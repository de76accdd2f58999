import vue from '@vitejs/plugin-vue';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
    plugins: [vue()],
    resolve: { alias: { '@': fileURLToPath(new URL('resources/js', import.meta.url)) } },
    test: {
        include: ['tests/front/**/*.spec.ts'],
        // Files that mount components ask for a document themselves.
        environment: 'node',
        cache: false,
    },
});
