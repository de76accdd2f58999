<script setup lang="ts">
import { ApiError } from '@/api/client';

/** What a screen says while it loads, when it has nothing to show, and when something went wrong. */
defineProps<{ loading?: boolean; error?: Error | null; title?: string }>();
defineEmits<{ retry: [] }>();
</script>

<template>
    <div v-if="loading" class="py-10 text-ink-faint" role="status">Reading the log …</div>
    <div v-else class="mt-2 border-t border-rule py-8 [&>*]:max-w-xl">
        <template v-if="error">
            <h2 class="text-lg">{{ error instanceof ApiError ? error.title : 'Something went wrong here' }}</h2>
            <p class="mt-1 mb-4 text-ink-soft">{{ error.message }} What you typed elsewhere is kept.</p>
            <button type="button" class="button button-quiet" @click="$emit('retry')">Try again</button>
        </template>
        <template v-else>
            <h2 class="text-lg">{{ title }}</h2>
            <div class="mt-1 text-ink-soft"><slot /></div>
        </template>
    </div>
</template>
