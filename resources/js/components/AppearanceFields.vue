<script setup lang="ts">
import { useFreshness } from '@/composables/useFreshness';
import { useSession } from '@/composables/useSession';
import { useTheme, type Theme } from '@/composables/useTheme';
import { LOCALES } from '@/words';
import { ref } from 'vue';

/** How the product looks to a person, and how it writes numbers for them. */
const { user, setLocale } = useSession();
const { theme, set } = useTheme();
const renew = useFreshness();
const refused = ref('');

const THEMES: { value: Theme; name: string }[] = [
    { value: 'device', name: 'as the device' },
    { value: 'light', name: 'light' },
    { value: 'dark', name: 'dark' },
];
const sample = (locale: string): string => new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }).format(12345.5);

async function choose(locale: string): Promise<void> {
    const known = LOCALES.find((each) => each === locale);
    if (known === undefined) {
        return;
    }
    try {
        await setLocale(known);
        refused.value = '';
        // What is typed is shown as the server writes it for this setting.
        await renew();
    } catch (error) {
        refused.value = error instanceof Error ? error.message : '';
    }
}
</script>

<template>
    <fieldset>
        <legend class="mb-1 text-[13.5px] text-ink-soft">Appearance</legend>
        <div class="flex gap-4">
            <button
                v-for="each in THEMES"
                :key="each.value"
                type="button"
                class="tab"
                :aria-pressed="theme === each.value"
                @click="set(each.value)"
            >
                {{ each.name }}
            </button>
        </div>
    </fieldset>
    <label class="mt-3 block">
        <span class="mb-1 block text-[13.5px] text-ink-soft">Numbers are written</span>
        <select
            class="field w-full max-w-[280px]"
            :value="user?.locale"
            @change="choose(($event.target as HTMLSelectElement).value)"
        >
            <option v-for="each in LOCALES" :key="each" :value="each">{{ sample(each) }} ({{ each }})</option>
        </select>
        <span v-if="refused" class="error" role="alert">{{ refused }}</span>
    </label>
</template>
