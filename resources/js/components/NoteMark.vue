<template>
    <svg width="15" height="15" viewBox="0 0 14 14" class="inline" role="img" aria-label="has a note">
        <path
            d="M1.5 1.5h11v8h-6l-3 3v-3h-2z"
            class="fill-brass-tint stroke-brass"
            stroke-width="1.2"
            stroke-linejoin="round"
        />
    </svg>
</template>
