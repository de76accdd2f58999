<script setup lang="ts">
import { LOCALES } from '@/words';
import { useFreshness } from '@/composables/useFreshness';
import { useSession } from '@/composables/useSession';
import { useTheme, type Theme } from '@/composables/useTheme';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { defineAsyncComponent, ref } from 'vue';

/** Few change it often. */
const ChangePassword = defineAsyncComponent(() => import('./ChangePassword.vue'));

const { user, signOut, setLocale } = useSession();
const { theme, set } = useTheme();
const renew = useFreshness();
const refused = ref('');
const changing = ref(false);
const changed = ref(false);

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
    <Popover v-if="user" class="relative">
        <PopoverButton class="rounded-[3px] py-1 text-[14px] text-on-sea focus-visible:outline-brass-bright">{{
            user.name
        }}</PopoverButton>
        <PopoverPanel
            class="absolute top-full right-0 z-20 mt-1 w-72 rounded-[4px] border border-rule bg-sheet p-4 text-ink shadow-[0_6px_24px_rgb(0_0_0/.16)]"
        >
            <div class="font-semibold">{{ user.name }}</div>
            <div class="mb-3 text-[13.5px] text-ink-soft">{{ user.role }}</div>
            <fieldset class="border-t border-rule pt-2.5 pb-3">
                <legend class="sr-only">Appearance</legend>
                <div class="mb-1 text-[13.5px] text-ink-soft">Appearance</div>
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
            <label class="block border-t border-rule pt-2.5 pb-3">
                <span class="mb-1 block text-[13.5px] text-ink-soft">Numbers are written</span>
                <select
                    class="field w-full"
                    :value="user.locale"
                    @change="choose(($event.target as HTMLSelectElement).value)"
                >
                    <option v-for="each in LOCALES" :key="each" :value="each">{{ sample(each) }} ({{ each }})</option>
                </select>
                <span v-if="refused" class="error" role="alert">{{ refused }}</span>
            </label>
            <div class="border-t border-rule pt-2.5 pb-3">
                <button
                    v-if="!changing"
                    type="button"
                    class="quiet-link min-h-6 text-[14px]"
                    @click="((changing = true), (changed = false))"
                >
                    Change the password
                </button>
                <ChangePassword v-else @done="((changing = false), (changed = true))" />
                <p v-if="changed" class="mt-1 text-[13.5px] text-ink-soft" role="status">
                    It is changed; what was open on other devices has ended.
                </p>
            </div>
            <button type="button" class="button button-quiet mt-1 w-full" @click="signOut">Sign out</button>
        </PopoverPanel>
    </Popover>
</template>
