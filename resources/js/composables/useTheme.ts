import { ref } from 'vue';

export type Theme = 'device' | 'light' | 'dark';

const current = document.documentElement.dataset['theme'];
const theme = ref<Theme>(current === 'light' || current === 'dark' ? current : 'device');

/** Light, dark, or as the device is set. Kept in a cookie, so that the server draws the page right from the start. */
export function useTheme() {
    function set(chosen: Theme): void {
        theme.value = chosen;
        if (chosen === 'device') {
            delete document.documentElement.dataset['theme'];
            document.cookie = 'theme=; path=/; max-age=0; samesite=lax';
        } else {
            document.documentElement.dataset['theme'] = chosen;
            document.cookie = `theme=${chosen}; path=/; max-age=31536000; samesite=lax`;
        }
    }

    return { theme, set };
}
