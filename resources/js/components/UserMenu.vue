<script setup lang="ts">
import { useSession } from '@/composables/useSession';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import AppearanceFields from './AppearanceFields.vue';

const { user, signOut } = useSession();
</script>

<template>
    <Popover v-if="user" class="relative">
        <PopoverButton class="rounded-[3px] py-1 text-[14px] text-on-sea focus-visible:outline-brass-bright">{{
            user.name
        }}</PopoverButton>
        <PopoverPanel
            v-slot="{ close }"
            class="absolute top-full right-0 z-20 mt-1 w-72 rounded-[4px] border border-rule bg-sheet p-4 text-ink shadow-[0_6px_24px_rgb(0_0_0/.16)]"
        >
            <div class="font-semibold">{{ user.name }}</div>
            <div class="mb-3 text-[13.5px] text-ink-soft">{{ user.role }}</div>
            <div class="border-t border-rule pt-2.5 pb-3"><AppearanceFields /></div>
            <p class="border-t border-rule pt-2.5 pb-3 text-[14px]">
                <RouterLink class="quiet-link inline-block min-h-6" :to="{ name: 'account' }" @click="close()"
                    >Your account</RouterLink
                >
                <span class="block text-[13.5px] text-ink-faint"
                    >name, password, second factor, devices, who stands in</span
                >
            </p>
            <button type="button" class="button button-quiet mt-1 w-full" @click="signOut">Sign out</button>
        </PopoverPanel>
    </Popover>
</template>
