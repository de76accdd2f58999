import '../css/app.css';
import { VueQueryPlugin, type VueQueryPluginOptions } from '@tanstack/vue-query';
import { createApp } from 'vue';
import { ApiError } from './api/client';
import App from './App.vue';
import { useSession } from './composables/useSession';
import { router } from './router';

const queries: VueQueryPluginOptions = {
    queryClientConfig: {
        defaultOptions: {
            queries: {
                staleTime: 15_000,
                // What was read is shown and never changed in place: nothing inside of it has to be watched.
                shallow: true,
                retry: (failures, error) => failures < 1 && error instanceof ApiError && error.isOffline,
            },
        },
    },
};

const { load } = useSession();
// The first screen is fetched while the session is read; without a server the page says so itself.
void load()
    .catch(() => undefined)
    .finally(() => createApp(App).use(router).use(VueQueryPlugin, queries).mount('#app'));
