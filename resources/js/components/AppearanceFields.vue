<script setup lang="ts">
import { useFreshness } from '@/composables/useFreshness';
import { useSession } from '@/composables/useSession';
import { useTheme, type Theme } from '@/composables/useTheme';
import { DATE_LANGUAGES, LOCALES } from '@/words';
import { ref } from 'vue';

/** How the product looks to a person, and how it writes numbers and dates for them. */
const { user, setWriting } = useSession();
const { theme, set } = useTheme();
const renew = useFreshness();
const refused = ref('');

const THEMES: { value: Theme; name: string }[] = [
    { value: 'device', name: 'as the device' },
    { value: 'light', name: 'light' },
    { value: 'dark', name: 'dark' },
];
const sample = (locale: string): string => new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }).format(12345.5);

const today = (language: string): string =>
    new Intl.DateTimeFormat(language, { day: 'numeric', month: 'long', year: 'numeric' }).format(new Date());

async function choose(writing: Parameters<typeof setWriting>[0]): Promise<void> {
    try {
        await setWriting(writing);
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
            @change="choose({ locale: ($event.target as HTMLSelectElement).value as (typeof LOCALES)[number] })"
        >
            <option v-for="each in LOCALES" :key="each" :value="each">{{ sample(each) }} ({{ each }})</option>
        </select>
    </label>
    <label class="mt-3 block">
        <span class="mb-1 block text-[13.5px] text-ink-soft">Months and days are written</span>
        <select
            class="field w-full max-w-[280px]"
            :value="user?.dateLanguage"
            @change="
                choose({
                    dateLanguage: ($event.target as HTMLSelectElement).value as (typeof DATE_LANGUAGES)[number],
                })
            "
        >
            <option v-for="each in DATE_LANGUAGES" :key="each" :value="each">{{ today(each) }} ({{ each }})</option>
        </select>
        <span v-if="refused" class="error" role="alert">{{ refused }}</span>
    </label>
</template>
