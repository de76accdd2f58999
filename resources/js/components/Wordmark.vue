<template>
    <span class="flex items-center gap-[9px] font-serif text-[20px] font-semibold tracking-[.01em]">
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
            <circle cx="10" cy="10" r="8.6" class="fill-none stroke-brass-bright" stroke-width="1.5" />
            <path d="M10 3.2 L12 10 L10 16.8 L8 10 Z" class="fill-brass-bright" transform="rotate(24 10 10)" />
        </svg>
        Kybernet
    </span>
</template>
