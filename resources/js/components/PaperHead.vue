<script setup lang="ts">
import { useSession } from '@/composables/useSession';

/** Whose paper it is: at the head of what is printed, and nowhere else. */
const { session, root } = useSession();
</script>

<template>
    <header
        v-if="session?.logo || session?.accent"
        class="mb-4 hidden items-center gap-4 border-b-[3px] border-ink pb-2 print:flex"
        :style="session.accent ? { borderColor: session.accent } : {}"
        aria-hidden="true"
    >
        <img v-if="session.logo" :src="session.logo" alt="" class="max-h-[40px] max-w-[200px]" />
        <span class="font-serif text-[15px]" :style="session.accent ? { color: session.accent } : {}">{{
            root?.name
        }}</span>
    </header>
</template>
