import tailwindcss from '@tailwindcss/vite';
import vue from '@vitejs/plugin-vue';
import laravel from 'laravel-vite-plugin';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

export default defineConfig({
    plugins: [laravel({ input: ['resources/js/main.ts', 'resources/css/app.css'], refresh: false }), vue(), tailwindcss()],
    resolve: { alias: { '@': fileURLToPath(new URL('resources/js', import.meta.url)) } },
    build: {
        // The page may load nothing that is not its own, and that includes styles written into it.
        assetsInlineLimit: 0,
        target: 'es2022',
        // These know light-dark(), which the one palette is written with.
        cssTarget: ['chrome123', 'firefox120', 'safari17.5'],
    },
});
